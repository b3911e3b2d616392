import type { Handler } from '../command.js';
import type { completionCommand } from '../commands/completion.js';
import { bashScript } from '../completion/bash.js';
import { fishScript } from '../completion/fish.js';
import { wordsOf } from '../completion/words.js';
import { zshScript } from '../completion/zsh.js';
import { allCommands } from '../commands/index.js';

const scripts = { bash: bashScript, zsh: zshScript, fish: fishScript } as const;

export const handler: Handler<typeof completionCommand> = async ({ shell }, _file, { say }) => {
  say(scripts[shell](allCommands.map(wordsOf)).trimEnd());
  return Promise.resolve();
};
