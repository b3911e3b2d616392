import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { NotFoundError } from '../core/base/errors.js';

/** How many folders deep pages are looked for. */
const maxDepth = 5;
/** Packages of others have pages of their own, which are not the site's. */
const notOfSite = new Set(['node_modules']);

/**
 * The paths with which to begin in the folder of a static site: its front page, or, where it has none, the pages nearest to it,
 * of which none need lead to another.
 *
 * @throws NotFoundError where there is no page
 */
export function firstPagesIn(folder: string): string[] {
  if (existsSync(join(folder, 'index.html'))) return ['/'];
  let level = [''];
  for (let depth = 0; depth <= maxDepth; depth++) {
    const entries = level.flatMap((path) => namesIn(folder, path));
    const pages = entries.filter(({ name, isFile }) => isFile && /\.html?$/i.test(name));
    if (pages.length > 0) return pages.map(({ path }) => path).sort();
    level = entries.flatMap(({ path, name, isFile }) =>
      isFile || notOfSite.has(name) ? [] : path,
    );
  }
  throw new NotFoundError(`there is no page in the folder ${folder}`, {
    hint: 'give the folder of a static site: one with an index.html, or with other .html files',
  });
}

interface Entry {
  readonly name: string;
  /** Within the site, escaped as in an address. */
  readonly path: string;
  readonly isFile: boolean;
}

/** Files and folders, without those that are hidden, which are not served. */
function namesIn(folder: string, path: string): Entry[] {
  return readdirSync(join(folder, decodeURIComponent(path)), { withFileTypes: true })
    .filter((entry) => !entry.name.startsWith('.') && (entry.isFile() || entry.isDirectory()))
    .map((entry) => ({
      name: entry.name,
      path: `${path}/${encodeURIComponent(entry.name)}`,
      isFile: entry.isFile(),
    }));
}
