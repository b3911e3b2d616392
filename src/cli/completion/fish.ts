import { programNames, quoted } from './words.js';
import type { CompletedCommand, CompletedOption } from './words.js';

/** Completion for fish. */
export function fishScript(commands: readonly CompletedCommand[]): string {
  const lines = programNames.flatMap((program) => [
    `complete -c ${program} -f`,
    ...commands.map(
      ({ name, describe }) =>
        `complete -c ${program} -n __fish_use_subcommand -a ${name} -d ${quoted(describe)}`,
    ),
    ...commands.flatMap(({ name, options, choices }) => [
      ...(choices.length > 0
        ? [`complete -c ${program} -n ${within(name)} -a ${quoted(choices.join(' '))}`]
        : [`complete -c ${program} -n ${within(name)} -F`]),
      ...options.map((one) => `complete -c ${program} -n ${within(name)} ${partsOf(one)}`),
    ]),
  ]);
  return ['# fish completion for zealous-lynx', ...lines, ''].join('\n');
}

function within(command: string): string {
  return quoted(`__fish_seen_subcommand_from ${command}`);
}

function partsOf({ flag, describe, takesValue, choices, path }: CompletedOption): string {
  const value = !takesValue
    ? ''
    : choices.length > 0
      ? ` -x -a ${quoted(choices.join(' '))}`
      : path === undefined
        ? ' -x'
        : path === 'folder'
          ? " -x -a '(__fish_complete_directories)'"
          : ' -r -F';
  return `-l ${flag}${value} -d ${quoted(describe)}`;
}
