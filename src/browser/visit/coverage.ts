import type { Channel } from '../chromium/channel.js';
import { keptAddress } from '../../core/address/address.js';
import type { TextUse } from '../../core/survey/load-facts.js';
import type { TextCollector } from '../network/texts.js';

/** The most numbers that are kept of one file in one visit. */
const maxNumbers = 40_000;

type Range = readonly [start: number, end: number];

/** Which functions of their scripts the pages of a tab call, as the browser counts it while they are loaded, scrolled and swept. */
export class Coverage {
  readonly #cdp: Channel;

  private constructor(cdp: Channel) {
    this.#cdp = cdp;
  }

  static async start(cdp: Channel): Promise<Coverage> {
    await Promise.all([
      cdp.send('Profiler.enable'),
      // By function, not by block: that costs scripts nearly nothing.
      cdp.send('Profiler.startPreciseCoverage', { callCount: false, detailed: false }),
    ]);
    return new Coverage(cdp);
  }

  /** What the page has not called since it was begun; files whose content is not known are left out. */
  async take(texts: TextCollector): Promise<TextUse[]> {
    const scripts = await this.#cdp.send('Profiler.takePreciseCoverage');
    const uncalled = new Map<string, Range[]>();
    for (const { url, functions } of scripts.result) {
      if (!/^https?:/.test(url)) continue;
      const ranges = functions.flatMap(({ ranges: [whole] }): Range[] =>
        whole?.count === 0 ? [[whole.startOffset, whole.endOffset]] : [],
      );
      const address = keptAddress(url);
      const before = uncalled.get(address);
      // A frame that loads the same script may call what the page does not.
      uncalled.set(address, before ? inBoth(outermost(before), outermost(ranges)) : ranges);
    }
    const told = [...uncalled].map(([url, ranges]) => useOf(url, ranges, texts));
    return (await Promise.all(told)).flat();
  }

  /** Forgets the page, so that the next one is counted from its beginning. */
  async restart(): Promise<void> {
    await this.#cdp.send('Profiler.takePreciseCoverage');
  }
}

async function useOf(url: string, ranges: Range[], texts: TextCollector): Promise<TextUse[]> {
  const contentHash = await texts.find(url);
  if (contentHash === undefined) return [];
  return [{ contentHash, ranges: outermost(ranges).flat().slice(0, maxNumbers) }];
}

/** Ranges in rising order, without those that are within another. */
function outermost(ranges: readonly Range[]): Range[] {
  const kept: Range[] = [];
  let end = -1;
  for (const range of ranges.toSorted((a, b) => a[0] - b[0] || b[1] - a[1])) {
    if (range[1] <= end) continue;
    kept.push(range);
    end = range[1];
  }
  return kept;
}

function inBoth(some: readonly Range[], others: readonly Range[]): Range[] {
  return some.flatMap(([start, end]) =>
    others.flatMap(([from, to]): Range[] =>
      Math.max(start, from) < Math.min(end, to) ? [[Math.max(start, from), Math.min(end, to)]] : [],
    ),
  );
}
