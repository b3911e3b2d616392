import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder } from '../system/make-folder.js';
import { cacheFolder } from './cache-folder.js';

/**
 * Whether this is the first time that a person is told something; from then on it is not. Where that cannot be noted, it
 * is told each time.
 *
 * @param key letters and hyphens
 */
export function isFirstTelling(key: string, folder = cacheFolder()): boolean {
  const mark = join(folder, 'told', key);
  if (existsSync(mark)) return false;
  try {
    makeFolder(join(folder, 'told'));
    writeFileSync(mark, '');
  } catch {
    // A cache that cannot be written is no reason to be silent.
  }
  return true;
}
