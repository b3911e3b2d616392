import type { Network } from '../visitors/network.js';
import type { RankedImage } from './ranked-image.js';
import type { Ranking } from './ranking.js';
import { rowTimes } from './row-times.js';
import type { RowTime, TimedPage } from './row-times.js';

/** What the pages that were timed would be spared, and which pages these are. */
export interface SparedTime extends RowTime {
  readonly pages: number;
  readonly network: Network;
}

/**
 * What an average visit would be spared if images weighed what they need.
 *
 * @param image one image, on the timed pages that are sent it; left out, all images of the ranking, on all of them
 * @returns `null` where none of the pages was timed
 */
export function sparedTime(
  ranking: Pick<Ranking, 'ledger' | 'images'>,
  { pages, network }: { readonly pages: readonly TimedPage[]; readonly network: Network },
  image?: Pick<RankedImage, 'fileIndex'>,
): SparedTime | null {
  const { ledger } = ranking;
  const rows: number[] = [];
  const concerned = new Set<string>();
  for (const [row, file] of ledger.file.entries()) {
    if (image && file !== image.fileIndex) continue;
    rows.push(row);
    const { page, view } = ledger.facts.visits[ledger.visit[row]!]!;
    concerned.add(`${page}\n${view}`);
  }
  const timed = pages.filter(({ page, view }) => concerned.has(`${page}\n${view}`));
  if (timed.length === 0) return null;
  const time = rowTimes(ranking, timed)({ rows: Int32Array.from(rows) });
  return { ...time, pages: new Set(timed.map(({ page }) => page)).size, network };
}
