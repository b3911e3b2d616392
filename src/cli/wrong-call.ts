import { UsageError } from '../core/base/errors.js';
import { callOf, optionsOf } from './command.js';
import type { Command } from './command.js';
import { allCommands } from './commands/index.js';
import { nearest } from './nearest.js';
import { flagOf } from './options/option.js';
import { program } from './program.js';

const commandNames = allCommands.map(({ name }) => name);

/**
 * Makes an error of the argument parser helpful: what was meant, or where to look.
 *
 * @param complaint what the parser said
 * @param values what the program was called with
 * @param known the settings that any command knows
 */
export function wrongCall(
  complaint: string,
  values: readonly string[],
  known: ReadonlySet<string>,
): UsageError {
  const command = allCommands.find(({ name }) => values.includes(name));
  if (command && complaint.startsWith('Not enough non-option arguments'))
    return new UsageError(`${command.name} needs more than it was given`, {
      hint: `write ${program.name} ${callOf(command)}`,
    });
  const unknown = /^Unknown (?:arguments?|commands?): (.+)$/.exec(complaint)?.[1];
  if (unknown === undefined) return new UsageError(complaint.split('\n')[0]!, { hint: helpOf() });
  const [first = ''] = unknown.split(', ');
  const given = values.some((value) => new RegExp(`^--?(?:no-)?${escape(first)}\\b`).test(value));
  if (given) return unknownOption(first, values, known, command);
  const isAfter = command && values.indexOf(command.name) < values.indexOf(first);
  return isAfter ? unknownValue(first, command) : unknownCommand(first);
}

function unknownCommand(first: string): UsageError {
  const meant = nearest(first, commandNames);
  return new UsageError(`there is no command ${first}`, {
    hint: meant ? `did you mean ${meant}?` : `there are: ${commandNames.join(', ')}`,
  });
}

/** A value that nothing is to be done with: the label of a survey, or a part of a selector that the shell took apart. */
function unknownValue(first: string, command: Command): UsageError {
  const takesNone = Object.keys(command.positionals).length === 0;
  const hint =
    takesNone && command.options['survey']
      ? `name a survey with --survey ${first}`
      : takesNone
        ? helpOf(command)
        : `write ${program.name} ${callOf(command)}, each value that has spaces in quotes`;
  return new UsageError(`${command.name} has no use for ${first}`, { hint });
}

function unknownOption(
  first: string,
  values: readonly string[],
  known: ReadonlySet<string>,
  command: Command | undefined,
): UsageError {
  const own = Object.keys(command ? optionsOf(command) : {}).map(flagOf);
  const flags = [...known].map(flagOf);
  const not = values.some((value) => value.startsWith(`--no-${first}`)) ? 'no-' : '';
  if (flags.includes(first))
    return new UsageError(`this command has no option --${not}${first}, though others have`, {
      hint: helpOf(command),
    });
  const meant = nearest(first, own) ?? nearest(first, flags);
  return new UsageError(`there is no option --${not}${first}`, {
    hint: meant ? `did you mean --${not}${meant}?` : helpOf(command),
  });
}

function helpOf(command?: Command): string {
  return `see ${[program.name, ...(command ? [command.name] : []), '--help'].join(' ')}`;
}

function escape(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
