import { existsSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { runJson } from '../support/program.js';

const missing = providePackages(['python3-doc']);
const folder = '/usr/share/doc/python3-doc/html';

interface Surveyed {
  readonly pages: readonly { readonly url: string; readonly group: string | null }[];
}

describe('a manual that Debian ships', () => {
  it.skipIf(missing !== undefined || !existsSync(folder))(
    'has its chapters as page groups, named by their folders, and hardly a page by itself',
    async () => {
      const cwd = temporaryFolder();
      const call = ['survey', folder, '--pages', '30', '--view', 'laptop', '--no-encode'];
      // It lists ten thousand sections on one page, which takes as long as all others.
      const { pages } = await runJson<Surveyed>([...call, '--exclude', '/contents.html'], { cwd });
      expect(pages.length).toBe(30);
      const sizes = new Map<string, number>();
      for (const { group, url } of pages)
        sizes.set(group ?? url, (sizes.get(group ?? url) ?? 0) + 1);
      const alone = [...sizes.values()].filter((size) => size === 1).length;
      // All of them were made by one tool.
      expect(alone).toBeLessThan(12);
      expect([...sizes.keys()]).toEqual(expect.arrayContaining(['/library/*', '/whatsnew/*']));
    },
  );
});
