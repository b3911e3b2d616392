import type { SentFile } from '../site-case.js';

/** How many of some files each page is sent. */
export function filesByPage(files: readonly SentFile[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const { pages } of files)
    for (const page of pages) counts.set(page, (counts.get(page) ?? 0) + 1);
  return counts;
}
