import { mkdirSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';

/**
 * Makes a folder, and those above it. The runtime's own way of doing that never ends in file systems that say of a folder
 * both that it is missing and that it cannot be made (`/proc`).
 *
 * @param mode rights of the folders that are made
 * @returns the folders that were not there, the outermost first
 * @throws Error when there can be none
 */
export function makeFolder(folder: string, mode = 0o777): string[] {
  const path = resolve(folder);
  const missing: string[] = [];
  for (let at = path; ; at = dirname(at)) {
    const found = statSync(at, { throwIfNoEntry: false });
    if (found?.isDirectory()) break;
    if (found) throw new Error(`${at} is not a folder`);
    missing.push(at);
    if (dirname(at) === at) break;
  }
  missing.reverse();
  for (const one of missing)
    try {
      mkdirSync(one, { mode });
    } catch (error) {
      // Another program was quicker.
      const isThere = (error as NodeJS.ErrnoException).code === 'EEXIST';
      if (!isThere || !statSync(one, { throwIfNoEntry: false })?.isDirectory()) throw error;
    }
  return missing;
}
