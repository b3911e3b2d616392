import { optionsOf } from '../command.js';
import type { Command } from '../command.js';
import { choicesOf, flagOf, kindOf, notesOf } from '../options/option.js';
import type { Option } from '../options/option.js';

/** One option, as a shell completes it. */
export interface CompletedOption {
  /** Without the dashes. */
  readonly flag: string;
  readonly describe: string;
  readonly takesValue: boolean;
  /** The words that its value may be; empty where any is allowed. */
  readonly choices: readonly string[];
  /** Whether its value is the path of a file or a folder. */
  readonly path: 'file' | 'folder' | undefined;
}

/** One command, as a shell completes it. */
export interface CompletedCommand {
  readonly name: string;
  readonly describe: string;
  readonly options: readonly CompletedOption[];
  /** The words that its first argument may be. */
  readonly choices: readonly string[];
}

/** What a shell has to know of a command. */
export function wordsOf(command: Command): CompletedCommand {
  const [first] = Object.values(command.positionals);
  return {
    name: command.name,
    describe: command.describe,
    options: Object.entries(optionsOf(command)).map(([name, declared]) =>
      completed(name, declared),
    ),
    choices: first ? choicesOf(first) : [],
  };
}

function completed(name: string, declared: Option): CompletedOption {
  return {
    flag: flagOf(name),
    describe: declared.describe,
    takesValue: kindOf(declared) !== 'switch',
    choices: choicesOf(declared),
    path: notesOf(declared).path,
  };
}

/** The names that the program is called by. */
export const programNames = ['zealous-lynx', 'zlynx'] as const;

/** Text in single quotes, as all three shells read it. */
export function quoted(text: string): string {
  return `'${text.replaceAll("'", "'\\''")}'`;
}
