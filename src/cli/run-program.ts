import yargs from 'yargs';
import { keepCodeIn } from '../system/compiled-code.js';
import { codeFolder } from './cache-folder.js';
import { moduleOf, optionsOf } from './command.js';
import type { RunContext } from './command.js';
import { maskedStream } from './masked-stream.js';
import { columnsOf } from './streams.js';
import type { Streams } from './streams.js';
import { program } from './program.js';
import { report } from './report-error.js';
import { allCommands, commands } from './commands/index.js';
import type { CommandName } from './commands/index.js';
import { handlers } from './handlers.js';
import { wrongCall } from './wrong-call.js';

/** The settings that any command knows. */
const known = new Set(allCommands.flatMap((command) => Object.keys(optionsOf(command))));

/**
 * Runs the program once.
 *
 * @param values what it was called with, without its own name
 * @returns the exit status
 */
export async function runProgram(values: readonly string[], given: Streams): Promise<number> {
  keepCodeIn(codeFolder());
  const streams = { stdout: maskedStream(given.stdout), stderr: maskedStream(given.stderr) };
  let status = 0;
  const context: RunContext = {
    streams,
    known,
    asksForHelp: values.some((value) => value === '--help' || value === '-h'),
    onStatus: (told) => (status = told),
  };
  const cli = yargs()
    .scriptName(program.name)
    .usage(
      '$0 <command> [options]\n\nFinds what the images of a site cost, and makes the right ones.',
    )
    .locale('en')
    .updateStrings({ string: 'value', array: 'values', boolean: 'switch' })
    .parserConfiguration({ 'strip-dashed': true, 'greedy-arrays': false })
    .strict()
    .strictCommands()
    .demandCommand(1, 'Say which command to run.')
    .example('$0 demo', 'the whole story, on a site that comes with the program')
    .example('$0 survey http://brindlebay.test/', 'measure a site')
    .example('$0 rank', 'what its images waste')
    .epilogue(
      'Every command has its own --help. Options marked [values] may be given several times. Exit status: 0 done, 1 a gate did not hold, 2 the call or a setting is wrong, 3 the work failed, 130 stopped.',
    )
    .version(program.version)
    .alias('help', 'h')
    .wrap(Math.min(120, columnsOf(streams.stdout) ?? 100))
    .exitProcess(false)
    .fail((message, error) => {
      throw error ?? wrongCall(message, values, known);
    });
  for (const name of Object.keys(commands) as CommandName[])
    cli.command(moduleOf(commands[name], handlers[name], context));
  try {
    // What the parser itself has to say (help, the version) is handed over instead of printed.
    const call = values.length === 0 ? ['--help'] : [...values];
    await cli.parseAsync(call, {}, (_error, _argv, output) => {
      if (output) streams.stdout.write(`${output}\n`);
    });
    return status;
  } catch (error) {
    return report(error, values.includes('--verbose'), streams.stderr);
  }
}
