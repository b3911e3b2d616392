#!/usr/bin/env node
import yargs from 'yargs';
import { hideBin } from 'yargs/helpers';
import { UsageError } from '../core/base/errors.js';
import type { AnyCommand } from './command.js';
import { clockCommand } from './commands/clock.js';
import { compareCommand } from './commands/compare.js';
import { demoCommand } from './commands/demo.js';
import { explainCommand } from './commands/explain.js';
import { rankCommand } from './commands/rank.js';
import { refitCommand } from './commands/refit.js';
import { surveyCommand } from './commands/survey.js';
import { surveysCommand } from './commands/surveys.js';
import { nearest } from './nearest.js';
import { program } from './program.js';
import { report } from './report-error.js';

/** Every command, in the order of the work. */
const commands: readonly AnyCommand[] = [
  surveyCommand,
  rankCommand,
  explainCommand,
  refitCommand,
  clockCommand,
  compareCommand,
  surveysCommand,
  demoCommand,
];

const commandNames = commands.map(({ name }) => name);

const known = new Set(commands.flatMap(({ names }) => names));

// A reader that has seen enough (`| head`) is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  process.exit(error.code === 'EPIPE' ? 0 : 3);
});

const cli = yargs(hideBin(process.argv))
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
    'Every command has its own --help. An option with [values] may be given several times. The exit status is 0 done, 1 a gate did not hold, 2 the call or a setting is wrong, 3 the work failed, 130 stopped.',
  )
  .version(program.version)
  .alias('help', 'h')
  .wrap(Math.min(120, process.stdout.columns || 100))
  .exitProcess(false)
  .fail((message, error) => {
    throw error ?? new UsageError(...explain(message));
  });
for (const { module } of commands) cli.command(module(known));

try {
  await cli.parseAsync();
} catch (error) {
  process.exitCode = report(error, process.argv.includes('--verbose'));
}

/** Makes a complaint of the argument parser helpful: what was meant, or where to look. */
function explain(complaint: string): [string, { hint: string }] {
  const help = `see ${program.name} --help`;
  const unknown = /^Unknown (?:arguments?|commands?): (.+)$/.exec(complaint)?.[1];
  if (unknown === undefined) return [complaint.split('\n')[0]!, { hint: help }];
  const [first] = unknown.split(', ');
  const given = process.argv.some((argument) =>
    new RegExp(`^--?${escape(first!)}\\b`).test(argument),
  );
  if (!given) {
    const meant = nearest(first!, commandNames);
    return [
      `there is no command ${first}`,
      { hint: meant ? `did you mean ${meant}?` : `there are: ${commandNames.join(', ')}` },
    ];
  }
  const options = [...known].map((name) =>
    name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`),
  );
  if (options.includes(first!))
    return [`this command has no option --${first}, though others have`, { hint: help }];
  const meant = nearest(first!, options);
  return [`there is no option --${first}`, { hint: meant ? `did you mean --${meant}?` : help }];
}

function escape(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
