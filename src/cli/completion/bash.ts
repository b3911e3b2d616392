import { programNames } from './words.js';
import type { CompletedCommand } from './words.js';

/** Completion for bash. */
export function bashScript(commands: readonly CompletedCommand[]): string {
  const cases = commands.flatMap(({ name, options, choices }) => [
    `    ${name})`,
    '      case "$previous" in',
    ...options
      .filter(({ choices: words }) => words.length > 0)
      .map(({ flag, choices: words }) => `        --${flag}) words='${words.join(' ')}' ;;`),
    ...paths(options, 'file'),
    ...paths(options, 'folder'),
    '        *)',
    `          if [[ $current == -* ]]; then words='${options.map(({ flag }) => `--${flag}`).join(' ')} --help'`,
    choices.length > 0
      ? `          else words='${choices.join(' ')}'; fi ;;`
      : '          else files; return; fi ;;',
    '      esac ;;',
  ]);
  return [
    '# bash completion for zealous-lynx',
    '_zealous_lynx() {',
    '  local current=${COMP_WORDS[COMP_CWORD]} previous=${COMP_WORDS[COMP_CWORD-1]} words=',
    '  files() { mapfile -t COMPREPLY < <(compgen -f -- "$current"); }',
    '  folders() { mapfile -t COMPREPLY < <(compgen -d -- "$current"); }',
    '  if ((COMP_CWORD == 1)); then',
    `    mapfile -t COMPREPLY < <(compgen -W '${commands.map(({ name }) => name).join(' ')} --help --version' -- "$current")`,
    '    return',
    '  fi',
    '  case "${COMP_WORDS[1]}" in',
    ...cases,
    '  esac',
    '  mapfile -t COMPREPLY < <(compgen -W "$words" -- "$current")',
    '}',
    `complete -o filenames -F _zealous_lynx ${programNames.join(' ')}`,
    '',
  ].join('\n');
}

function paths(options: CompletedCommand['options'], kind: 'file' | 'folder'): string[] {
  const flags = options.filter(({ path }) => path === kind).map(({ flag }) => `--${flag}`);
  return flags.length > 0 ? [`        ${flags.join('|')}) ${kind}s; return ;;`] : [];
}
