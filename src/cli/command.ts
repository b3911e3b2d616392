import type { CommandModule, Options as ParserOptions, Argv } from 'yargs';
import { record } from '../core/base/record.js';
import { choicesOf, isRequired, kindOf, schemaOf, flagOf, usualOf } from './options/option.js';
import type { Option, Options, SettingsOf } from './options/option.js';
import { commonOptions } from './options/shared.js';
import type { FileSettings } from './options/config-file.js';
import { resolveSettings, unknownVariables } from './options/resolve.js';
import { openIo } from './io.js';
import type { Io } from './io.js';
import type { Streams } from './streams.js';
import { openLog } from './log.js';
import { report } from './report-error.js';

/** One command: its name, its arguments and options, and its help. */
export interface Command<
  Positionals extends Options = Options,
  Declared extends Options = Options,
> {
  readonly name: string;
  readonly describe: string;
  /** The positional arguments, in order; a list takes all that are left. */
  readonly positionals: Positionals;
  readonly options: Declared;
  /** Examples: the call without the program's name, and what it does. */
  readonly examples: readonly (readonly [string, string])[];
}

/** Declares a command. */
export function defineCommand<Positionals extends Options, Declared extends Options>(
  command: Command<Positionals, Declared>,
): Command<Positionals, Declared> {
  return command;
}

/** Does what a command is for; returns the exit status when it is not 0. */
export type Handler<Of extends Command> = (
  settings: SettingsOf<typeof commonOptions & Of['positionals'] & Of['options']>,
  file: FileSettings,
  io: Io,
) => Promise<number | void>;

/** The options of a command, those that all commands have among them. */
export function optionsOf({ options }: Command): Options {
  return { ...options, ...commonOptions };
}

/** The call as the parser reads it: `survey [start..]`. */
export function callOf({ name, positionals }: Command): string {
  const words = Object.entries(positionals).map(([positional, declared]) => {
    const many = kindOf(declared) === 'values' ? '..' : '';
    return isRequired(declared) ? `<${positional}${many}>` : `[${positional}${many}]`;
  });
  return [name, ...words].join(' ');
}

/** What one run of the program is given. */
export interface RunContext {
  readonly streams: Streams;
  /** The settings that any command knows. */
  readonly known: ReadonlySet<string>;
  /** Whether the call requests help. */
  readonly asksForHelp: boolean;
  readonly onStatus: (status: number) => void;
}

/** Makes a parser module of a command: options in, settings checked, errors turned into one line. */
export function moduleOf(
  command: Command,
  load: () => Promise<{ readonly handler: Handler<never> }>,
  context: RunContext,
): CommandModule {
  const { streams, known, asksForHelp, onStatus } = context;
  const options = optionsOf(command);
  const all = { ...options, ...command.positionals };
  return {
    command: callOf(command),
    describe: command.describe,
    builder: (argv: Argv) => {
      for (const [name, { describe }] of Object.entries(command.positionals))
        argv.positional(name, { describe, type: 'string', default: undefined });
      if (asksForHelp)
        for (const [call, words] of command.examples) argv.example(`$0 ${call}`, words);
      return argv.options(
        Object.fromEntries(
          Object.entries(options).map(([name, declared]) => [
            flagOf(name),
            parserOption(declared, asksForHelp),
          ]),
        ),
      );
    },
    handler: async (argv) => {
      let verbose = argv['verbose'] === true;
      let close = () => {};
      try {
        const flags = record(Object.keys(all), (name) => given(argv[name]));
        const { settings, file } = await resolveSettings(flags, process.env, schemaOf(all), known);
        const { quiet, json } = settings as SettingsOf<typeof commonOptions>;
        verbose = settings['verbose'] === true;
        const log = await openLog(verbose, quiet, streams.stderr);
        for (const name of unknownVariables(process.env, known))
          log.warn(`the variable ${name} is not a setting of this program`);
        const io = openIo(log, json, quiet, streams);
        close = () => io.close();
        const { handler } = await load();
        onStatus((await handler(settings as never, file, io)) ?? 0);
      } catch (error) {
        close();
        onStatus(report(error, verbose, streams.stderr));
      } finally {
        close();
      }
    },
  };
}

/** An option for the parser. Its words are left out unless help is requested: laying them out takes a while. */
function parserOption(declared: Option, asksForHelp: boolean): ParserOptions {
  const kind = kindOf(declared);
  return {
    describe: asksForHelp ? helpOf(declared) : undefined,
    hidden: !asksForHelp,
    type: kind === 'switch' ? 'boolean' : 'string',
    ...(kind === 'switch' ? {} : { requiresArg: true }),
    ...(kind === 'values' ? { array: true } : {}),
    ...(asksForHelp && declared.heading ? { group: `${declared.heading}:` } : {}),
  };
}

/** The help of an option: what it does, its choices, and its default. */
function helpOf(declared: Option): string {
  const usual = usualOf(declared);
  const choices = choicesOf(declared).join(', ');
  return `${declared.describe}${choices && `: ${choices}`}${usual ? ` [${usual}]` : ''}`;
}

/** The values given for an option; the parser represents an empty list as a list of `undefined`. */
function given(value: unknown): unknown {
  return Array.isArray(value) ? value.filter((item) => item !== undefined) : value;
}
