import { defineCommand } from '../command.js';
import { oneOf } from '../options/checks.js';
import { option } from '../options/option.js';

export const shells = ['bash', 'zsh', 'fish'] as const;

export const completionCommand = defineCommand({
  name: 'completion',
  describe: 'Print a script that completes commands and options in your shell',
  positionals: {
    shell: option(shells.join(', '), oneOf(shells).required(`one of ${shells.join(', ')}`)),
  },
  options: {},
  examples: [
    ['completion bash > ~/.local/share/bash-completion/completions/zealous-lynx', 'for bash'],
    ['completion zsh > ~/.zfunc/_zealous-lynx', 'for zsh, where ~/.zfunc is in fpath'],
    ['completion fish > ~/.config/fish/completions/zealous-lynx.fish', 'for fish'],
  ],
});
