import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { run } from './program.js';
import type { Outcome } from './program.js';

/** The cache of the demo's pictures, drawn once for all test files. */
export const demoCache = () => join(sharedFolder(), 'cache');

/** Where the demo was run, and what it printed. */
export interface SharedDemo {
  /** Its working folder: the workspace, and the refit in `brindle-bay-refit`. Not to be written to. */
  readonly cwd: string;
  readonly outcome: Outcome;
}

/** Runs the demo once for all test files of a run: whoever comes first does it, the others wait. */
export async function sharedDemo(): Promise<SharedDemo> {
  const cwd = join(sharedFolder(), 'demo');
  const told = join(sharedFolder(), 'demo.json');
  if (isFirst('demo.lock')) {
    mkdirSync(cwd);
    const env = { ZEALOUS_LYNX_CACHE: demoCache() };
    const outcome = await run(['demo'], { cwd, env });
    writeFileSync(`${told}.draft`, JSON.stringify(outcome));
    renameSync(`${told}.draft`, told);
  }
  while (!existsSync(told)) await pause(200);
  return { cwd, outcome: JSON.parse(readFileSync(told, 'utf8')) as Outcome };
}

function isFirst(name: string): boolean {
  try {
    mkdirSync(join(sharedFolder(), name));
    return true;
  } catch {
    return false;
  }
}

function sharedFolder(): string {
  const folder = process.env['LYNX_TEST_SHARED'];
  if (folder === undefined) throw new Error('run the tests with npm test or npx vitest');
  return folder;
}
