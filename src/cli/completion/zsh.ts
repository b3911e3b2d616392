import { programNames, quoted } from './words.js';
import type { CompletedCommand, CompletedOption } from './words.js';

/** Completion for zsh. */
export function zshScript(commands: readonly CompletedCommand[]): string {
  return [
    `#compdef ${programNames.join(' ')}`,
    '_zealous_lynx() {',
    '  local -a commands',
    '  commands=(',
    ...commands.map(({ name, describe }) => `    ${quoted(`${name}:${describe}`)}`),
    '  )',
    '  if ((CURRENT == 2)); then',
    "    _describe -t commands 'command' commands",
    '    return',
    '  fi',
    '  local command=$words[2]',
    '  shift words',
    '  ((CURRENT--))',
    '  case $command in',
    ...commands.flatMap(({ name, options, choices }) => [
      `    ${name})`,
      '      _arguments \\',
      ...options.map((one) => `        ${quoted(specOf(one))} \\`),
      `        ${quoted(choices.length > 0 ? `1:what:(${choices.join(' ')})` : '*:file:_files')} ;;`,
    ]),
    '  esac',
    '}',
    'compdef _zealous_lynx ' + programNames.join(' '),
    '',
  ].join('\n');
}

function specOf({ flag, describe, takesValue, choices, path }: CompletedOption): string {
  const words = describe.replace(/[[\]\\:]/g, '\\$&');
  const action =
    choices.length > 0
      ? `(${choices.join(' ')})`
      : path === 'folder'
        ? '_files -/'
        : path === 'file'
          ? '_files'
          : ' ';
  return `*--${flag}[${words}]${takesValue ? `:${flag}:${action}` : ''}`;
}
