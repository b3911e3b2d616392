import { cpSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import Libsql from 'libsql';
import { installPackage } from './installed-package.js';
import type { InstalledPackage } from './installed-package.js';
import { outcomeOf, start } from './program.js';
import type { Outcome } from './program.js';

/** The cache of the demo's pictures, drawn once for all test files. */
export const demoCache = () => join(sharedFolder(), 'cache');

/** Where the package was installed and the demo run, and what it printed. */
export interface SharedDemo {
  /** Its working folder: the workspace, and the refit in `brindle-bay-refit`. Not to be written to. */
  readonly cwd: string;
  readonly installed: InstalledPackage;
  readonly outcome: Outcome;
}

const folderOf = () => join(sharedFolder(), 'demo');
const demoFile = () => join(sharedFolder(), 'demo.json');

/** Starts the demo as somebody would who has installed the package, unless somebody else of this run has done so. */
export function startDemo(): { readonly stop: () => void } | undefined {
  if (!isFirst('demo.lock')) return undefined;
  mkdirSync(folderOf());
  const stopped = new AbortController();
  void runDemo(stopped.signal).then((demo) => {
    if (!existsSync(folderOf())) return;
    writeFileSync(`${demoFile()}.draft`, JSON.stringify(demo));
    renameSync(`${demoFile()}.draft`, demoFile());
  });
  return { stop: () => stopped.abort() };
}

async function runDemo(signal: AbortSignal): Promise<SharedDemo | { readonly failed: string }> {
  const cwd = folderOf();
  try {
    const installed = await installPackage(sharedFolder(), cwd);
    const env = { ZEALOUS_LYNX_CACHE: demoCache() };
    const child = start(['demo'], { cwd, env }, installed.program);
    signal.addEventListener('abort', () => child.kill());
    return { cwd, installed, outcome: await outcomeOf(child) };
  } catch (error) {
    return { failed: String(error) };
  }
}

/** The demo, run once for all test files of a run; waits until it is done. */
export async function sharedDemo(): Promise<SharedDemo> {
  startDemo();
  while (!existsSync(demoFile())) await pause(200);
  const demo = JSON.parse(readFileSync(demoFile(), 'utf8')) as Awaited<ReturnType<typeof runDemo>>;
  if ('failed' in demo) throw new Error(demo.failed);
  return demo;
}

/** Copies the demo's workspace into another working folder, whoever else is reading it. */
export function copyDemoWorkspace(demo: SharedDemo, cwd: string): void {
  const [from, to] = [demo.cwd, cwd].map((folder) => join(folder, '.zealous-lynx')) as [
    string,
    string,
  ];
  // The files beside the database come and go with those who have it open.
  const isFile = (path: string) => !basename(path).startsWith('workspace.sqlite');
  cpSync(from, to, { recursive: true, filter: isFile });
  const database = new Libsql(join(from, 'workspace.sqlite'));
  database.prepare('VACUUM INTO ?').run(join(to, 'workspace.sqlite'));
  database.close();
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
