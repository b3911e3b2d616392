import type { AnyObjectSchema, InferType } from 'yup';
import type { Argv, CommandModule, Options } from 'yargs';
import { record } from '../core/base/record.js';
import type { Ground } from './config-file.js';
import { openIo } from './io.js';
import type { Io } from './io.js';
import { openLog } from './log.js';
import { commonOptions, commonSchema } from './common-options.js';
import { report } from './report-error.js';
import { resolveSettings, unknownVariables } from './settings.js';

/** One command: how it is called, what may be set, and what it does. */
export interface Command<Schema extends AnyObjectSchema> {
  /** The call as yargs reads it, `survey <start..>`. */
  readonly call: string;
  readonly describe: string;
  /** Arguments by position, described. */
  readonly positionals?: Readonly<Record<string, string>>;
  readonly options: Readonly<Record<string, Options>>;
  readonly schema: Schema;
  /** Worked examples: the call without the program's name, and what it does. */
  readonly examples: readonly (readonly [string, string])[];
  /** What it does, loaded only when it is called: most of what there is to load is behind it. */
  readonly load: () => Promise<{ readonly handler: Handler<Schema> }>;
}

/** Does what a command is for; returns the exit status when it is not 0. */
export type Handler<Schema extends AnyObjectSchema> = (
  settings: InferType<typeof commonSchema> & InferType<Schema>,
  ground: Ground,
  io: Io,
) => Promise<number | void>;

/** A command as it stands in the list of all. */
export interface AnyCommand {
  readonly name: string;
  /** The settings that it knows. */
  readonly names: readonly string[];
  readonly module: (known: ReadonlySet<string>) => CommandModule;
}

/** Makes a yargs module of a command: options in, settings checked, errors turned into one line. */
export function defineCommand<Schema extends AnyObjectSchema>(
  command: Command<Schema>,
): AnyCommand {
  const options = { ...command.options, ...commonOptions };
  const schema: AnyObjectSchema = commonSchema.concat(command.schema);
  const all = Object.keys(schema.fields);
  // What stands by its position in a call cannot come from a variable or a file.
  const names = all.filter((name) => !(name in (command.positionals ?? {})));
  return {
    name: command.call.split(' ', 1)[0]!,
    names,
    module: (known) => ({
      command: command.call,
      describe: command.describe,
      builder: (argv: Argv) => {
        for (const [name, describe] of Object.entries(command.positionals ?? {}))
          argv.positional(name, { describe, type: 'string', default: undefined });
        if (!asksForHelp) return argv.options(silent(options));
        for (const [call, words] of command.examples) argv.example(`$0 ${call}`, words);
        return argv.options(options);
      },
      handler: async (argv) => {
        let verbose = argv['verbose'] === true;
        let close = () => {};
        try {
          const flags = Object.fromEntries(all.map((name) => [name, given(argv[name])]));
          const { settings, ground } = await resolveSettings(flags, process.env, schema, known);
          const { quiet, json } = settings as InferType<typeof commonSchema>;
          verbose = (settings as InferType<typeof commonSchema>).verbose;
          const log = await openLog(verbose, quiet);
          for (const name of unknownVariables(process.env, known))
            log.warn(`the variable ${name} is no setting of this program`);
          const io = openIo(log, json, quiet);
          close = () => io.close();
          const { handler } = await command.load();
          const status = await handler(settings as never, ground, io);
          process.exitCode = status ?? 0;
        } catch (error) {
          close();
          process.exitCode = report(error, verbose);
        } finally {
          close();
        }
      },
    }),
  };
}

/** Whether the call wants to be told how to call. */
const asksForHelp = process.argv.some((argument) => argument === '--help' || argument === '-h');

/** Options that no help tells of: the parser lays out its help at every call, which takes a while. */
function silent(options: Readonly<Record<string, Options>>): Record<string, Options> {
  return record(Object.keys(options), (name) => ({
    ...options[name],
    describe: undefined,
    hidden: true,
  }));
}

/** What was given for an option; the parser writes an empty list as a list of nothing. */
function given(value: unknown): unknown {
  return Array.isArray(value) ? value.filter((item) => item !== undefined) : value;
}
