import { existsSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { runJson } from '../support/program.js';

interface Surveyed {
  readonly pages: readonly { readonly url: string; readonly group: string | null }[];
}

/** How many pages of a folder are in each group, the largest first; one that is alone is called by its address. */
async function groupsIn(folder: string, pages: number, ...options: string[]) {
  const call = ['survey', folder, '--pages', String(pages), '--view', 'laptop', '--no-encode'];
  const surveyed = await runJson<Surveyed>([...call, ...options], { cwd: temporaryFolder() });
  const sizes = new Map<string, number>();
  for (const { group, url } of surveyed.pages)
    sizes.set(group ?? url, (sizes.get(group ?? url) ?? 0) + 1);
  return {
    pages: surveyed.pages,
    sizes: [...sizes.values()].sort((a, b) => b - a),
    names: [...sizes.keys()],
  };
}

describe('a manual that Debian ships', () => {
  const chapters = '/usr/share/doc/python3-doc/html';
  const missing = providePackages(['python3-doc']) ?? (existsSync(chapters) ? undefined : chapters);
  it.skipIf(missing)(
    'has its chapters as page groups, named by their folders, and hardly a page by itself',
    async () => {
      // It lists ten thousand sections on one page, which takes as long as all others.
      const { pages, sizes, names } = await groupsIn(chapters, 30, '--exclude', '/contents.html');
      expect(pages.length).toBe(30);
      // All of them were made by one tool.
      expect(sizes.filter((size) => size === 1).length).toBeLessThan(12);
      expect(names).toEqual(expect.arrayContaining(['/library/*', '/whatsnew/*']));
    },
  );
});

describe('a manual with figures, notes and lists among its paragraphs', () => {
  const help = '/usr/share/gimp/2.0/help';
  const missing = providePackages(['gimp-help-en']) ?? (existsSync(help) ? undefined : help);
  it.skipIf(missing)(
    'is begun with the front page of its language, and is mostly one group',
    async () => {
      const { pages, sizes } = await groupsIn(help, 40);
      expect(pages.length).toBe(40);
      expect(pages.map(({ url }) => new URL(url).pathname)).toContain('/en/');
      expect(sizes[0]).toBeGreaterThanOrEqual(28);
      expect(sizes.filter((size) => size === 1).length).toBeLessThan(5);
    },
  );
});
