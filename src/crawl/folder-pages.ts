import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { NotFoundError } from '../core/base/errors.js';

/** How many folders deep pages are looked for. */
const maxDepth = 5;
/** Packages of others have pages of their own, which are not the site's. */
const notOfSite = new Set(['node_modules']);

/**
 * The paths with which to begin in the folder of a static site: its front page, or, where it has none, those of the folders
 * nearest to it. A folder without a front page counts with all its pages, of which none need lead to another.
 *
 * @throws NotFoundError where there is no page
 */
export function firstPagesIn(folder: string): string[] {
  let level = [''];
  for (let depth = 0; depth <= maxDepth; depth++) {
    const folders = level.map((path) => ({ path, entries: namesIn(folder, path) }));
    const pages = folders.flatMap(({ path, entries }) => pagesAmong(path, entries));
    if (pages.length > 0) return pages.sort();
    level = folders.flatMap(({ entries }) =>
      entries.flatMap(({ path, name, isFile }) => (isFile || notOfSite.has(name) ? [] : path)),
    );
  }
  throw new NotFoundError(`there is no page in the folder ${folder}`, {
    hint: 'give the folder of a static site: one with an index.html, or with other .html files',
  });
}

/** The front page of a folder by its short address, else every page in it. */
function pagesAmong(path: string, entries: readonly Entry[]): string[] {
  const pages = entries.filter(({ name, isFile }) => isFile && /\.html?$/i.test(name));
  return pages.some(({ name }) => name === 'index.html')
    ? [`${path}/`]
    : pages.map((page) => page.path);
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
