import type { Handler } from './command.js';
import type { CommandName } from './commands/index.js';

/** What does each command, loaded only when it is called: most of what there is to load is behind it. */
export const handlers: Readonly<
  Record<CommandName, () => Promise<{ readonly handler: Handler<never> }>>
> = {
  survey: () => import('./handlers/survey.js'),
  rank: () => import('./handlers/rank.js'),
  explain: () => import('./handlers/explain.js'),
  refit: () => import('./handlers/refit.js'),
  prove: () => import('./handlers/prove.js'),
  clock: () => import('./handlers/clock.js'),
  trial: () => import('./handlers/trial.js'),
  compare: () => import('./handlers/compare.js'),
  report: () => import('./handlers/report.js'),
  gate: () => import('./handlers/gate.js'),
  history: () => import('./handlers/history.js'),
  watch: () => import('./handlers/watch.js'),
  worker: () => import('./handlers/worker.js'),
  surveys: () => import('./handlers/surveys.js'),
  init: () => import('./handlers/init.js'),
  demo: () => import('./handlers/demo.js'),
  completion: () => import('./handlers/completion.js'),
};
