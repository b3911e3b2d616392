import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { outcomeOf, start } from './program.js';
import type { Outcome } from './program.js';

/** The cache of the demo's pictures, drawn once for all test files. */
export const demoCache = () => join(sharedFolder(), 'cache');

/** Where the demo was run, and what it printed. */
export interface SharedDemo {
  /** Its working folder: the workspace, and the refit in `brindle-bay-refit`. Not to be written to. */
  readonly cwd: string;
  readonly outcome: Outcome;
}

const folderOf = () => join(sharedFolder(), 'demo');
const outcomeFile = () => join(sharedFolder(), 'demo.json');

/** Starts the demo, unless somebody else of this run has done so. */
export function startDemo(): { readonly stop: () => void } | undefined {
  if (!isFirst('demo.lock')) return undefined;
  mkdirSync(folderOf());
  const child = start(['demo'], { cwd: folderOf(), env: { ZEALOUS_LYNX_CACHE: demoCache() } });
  void outcomeOf(child).then((outcome) => {
    if (!existsSync(folderOf())) return;
    writeFileSync(`${outcomeFile()}.draft`, JSON.stringify(outcome));
    renameSync(`${outcomeFile()}.draft`, outcomeFile());
  });
  return { stop: () => void child.kill() };
}

/** The demo, run once for all test files of a run; waits until it is done. */
export async function sharedDemo(): Promise<SharedDemo> {
  startDemo();
  while (!existsSync(outcomeFile())) await pause(200);
  const outcome = JSON.parse(readFileSync(outcomeFile(), 'utf8')) as Outcome;
  return { cwd: folderOf(), outcome };
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
