import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { allCommands } from '../../src/cli/commands/index.js';
import { bashScript } from '../../src/cli/completion/bash.js';
import { fishScript } from '../../src/cli/completion/fish.js';
import { wordsOf } from '../../src/cli/completion/words.js';
import { zshScript } from '../../src/cli/completion/zsh.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';

const words = allCommands.map(wordsOf);
const has = (shell: string) => spawnSync(shell, ['-c', 'true']).status === 0;

/** What bash offers for the last of some words. */
function offered(cwd: string, typed: readonly string[]): string[] {
  writeFiles(cwd, { 'completion.bash': bashScript(words) });
  const script = [
    `source ${join(cwd, 'completion.bash')}`,
    `COMP_WORDS=(${typed.map((word) => `'${word}'`).join(' ')})`,
    `COMP_CWORD=${typed.length - 1}`,
    '_zealous_lynx',
    'printf "%s\\n" "${COMPREPLY[@]}"',
  ].join('\n');
  const { stdout, stderr } = spawnSync('bash', ['-c', script], { cwd, encoding: 'utf8' });
  expect(stderr).toBe('');
  return stdout.split('\n').filter(Boolean);
}

describe.skipIf(!has('bash'))('completion in bash', () => {
  it.each([
    [
      ['zlynx', 'su'],
      ['survey', 'surveys'],
    ],
    [
      ['zlynx', 'rank', '--by', ''],
      ['family', 'image', 'page', 'group', 'host', 'cause', 'finding'],
    ],
    [['zlynx', 'rank', '--unw'], ['--unweighted']],
    [['zlynx', 'completion', 'f'], ['fish']],
    [['zlynx', 'clock', '--only', 'im'], ['image']],
    [['zlynx', 'survey', '--list', 'pag'], ['pages.csv']],
  ])('%j', (typed, expected) => {
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'pages.csv': '' });
    expect(offered(cwd, typed)).toEqual(expected);
  });
});

describe('the scripts', () => {
  it.skipIf(!has('zsh'))('for zsh is one that zsh reads', () => {
    const { stderr } = spawnSync('zsh', ['-n'], { input: zshScript(words), encoding: 'utf8' });
    expect(stderr).toBe('');
  });

  it.skipIf(!has('fish'))('for fish completes commands and choices', () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'completion.fish': fishScript(words) });
    const script = `source completion.fish; complete -C 'zlynx rank --by ca'`;
    const { stdout } = spawnSync('fish', ['-c', script], { cwd, encoding: 'utf8' });
    expect(stdout).toMatch(/^--by.*|^cause/m);
  });

  it('name every option of every command', () => {
    const [bash, zsh, fish] = [bashScript(words), zshScript(words), fishScript(words)];
    for (const { options } of words)
      for (const { flag } of options) {
        expect(bash).toContain(`--${flag} `);
        expect(zsh).toContain(`*--${flag}[`);
        expect(fish).toContain(`-l ${flag}`);
      }
  });
});
