import type { Command } from '../command.js';
import { clockCommand } from './clock.js';
import { compareCommand } from './compare.js';
import { completionCommand } from './completion.js';
import { demoCommand } from './demo.js';
import { explainCommand } from './explain.js';
import { gateCommand } from './gate.js';
import { historyCommand } from './history.js';
import { initCommand } from './init.js';
import { proveCommand } from './prove.js';
import { rankCommand } from './rank.js';
import { refitCommand } from './refit.js';
import { reportCommand } from './report.js';
import { surveyCommand } from './survey.js';
import { surveysCommand } from './surveys.js';
import { trialCommand } from './trial.js';
import { watchCommand } from './watch.js';
import { workerCommand } from './worker.js';

/** Every command, in the sequence of the work. */
export const commands = {
  survey: surveyCommand,
  rank: rankCommand,
  explain: explainCommand,
  refit: refitCommand,
  prove: proveCommand,
  clock: clockCommand,
  trial: trialCommand,
  compare: compareCommand,
  report: reportCommand,
  gate: gateCommand,
  history: historyCommand,
  watch: watchCommand,
  worker: workerCommand,
  surveys: surveysCommand,
  demo: demoCommand,
  init: initCommand,
  completion: completionCommand,
} as const satisfies Readonly<Record<string, Command>>;

export type CommandName = keyof typeof commands;

/** The same as a list of plain commands. */
export const allCommands: readonly Command[] = Object.values(commands);
