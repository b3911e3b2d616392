import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isRunning } from './running.js';

const prefix = 'zealous-lynx-';
let own: string | undefined;

/**
 * A folder for what is needed only while this program runs: nobody else may look into it, and it goes with the program. What
 * killed programs left behind goes when the next one needs such a folder.
 */
export function privateTemp(): string {
  if (own !== undefined) return own;
  clearOthers();
  // Made with rights for its owner alone.
  own = mkdtempSync(join(tmpdir(), `${prefix}${process.pid}-`));
  const folder = own;
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return own;
}

function clearOthers(): void {
  for (const name of readdirSync(tmpdir())) {
    const pid = new RegExp(`^${prefix}(\\d+)-`).exec(name)?.[1];
    if (pid === undefined || Number(pid) === process.pid || isRunning(Number(pid))) continue;
    try {
      rmSync(join(tmpdir(), name), { recursive: true, force: true });
    } catch {
      // It is another person's.
    }
  }
}
