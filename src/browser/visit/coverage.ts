import type { Channel } from '../chromium/channel.js';
import { keptAddress } from '../../core/address/address.js';
import type { TextUse } from '../../core/survey/load-facts.js';
import type { TextCollector } from '../network/texts.js';

/** The most numbers that are kept of one file in one visit. */
const maxNumbers = 40_000;

type Range = readonly [start: number, end: number];

/** What the pages of a tab use of their style sheets and scripts, as the browser counts it while they are loaded, scrolled and swept. */
export class Coverage {
  readonly #cdp: Channel;
  readonly #countsRules: boolean;
  /** Addresses of the style sheets of the page, by the browser's number. */
  readonly #sheets = new Map<string, string>();

  private constructor(cdp: Channel, countsRules: boolean) {
    this.#cdp = cdp;
    this.#countsRules = countsRules;
  }

  /** @param countsRules whether the rules of style sheets are counted: in a large sheet that takes a tenth of a visit */
  static async start(cdp: Channel, countsRules: boolean): Promise<Coverage> {
    const coverage = new Coverage(cdp, countsRules);
    await Promise.all([countsRules && coverage.#startRules(), coverage.#startFunctions()]);
    return coverage;
  }

  async #startRules(): Promise<void> {
    this.#cdp.on('CSS.styleSheetAdded', ({ header }) => {
      if (!header.isInline && /^https?:/.test(header.sourceURL))
        this.#sheets.set(header.styleSheetId, keptAddress(header.sourceURL));
    });
    await Promise.all([
      this.#cdp.send('DOM.enable'),
      this.#cdp.send('CSS.enable'),
      this.#cdp.send('CSS.startRuleUsageTracking'),
    ]);
  }

  async #startFunctions(): Promise<void> {
    await Promise.all([
      this.#cdp.send('Profiler.enable'),
      // By function, not by block: that costs scripts nearly nothing.
      this.#cdp.send('Profiler.startPreciseCoverage', { callCount: false, detailed: false }),
    ]);
  }

  /** What the page has used since it was begun; files whose content is not known are left out. */
  async take(
    texts: TextCollector,
  ): Promise<{ readonly styleUse: TextUse[]; readonly scriptUse: TextUse[] }> {
    const [rules, scripts] = await Promise.all([
      this.#usedRules(),
      this.#cdp.send('Profiler.takePreciseCoverage'),
    ]);
    const used = new Map<string, Range[]>();
    for (const url of this.#sheets.values()) used.set(url, []);
    for (const { styleSheetId, startOffset, endOffset } of rules) {
      const url = this.#sheets.get(styleSheetId);
      if (url !== undefined) used.get(url)!.push([startOffset, endOffset]);
    }
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
    const told = (files: ReadonlyMap<string, Range[]>) =>
      Promise.all([...files].map(([url, ranges]) => useOf(url, ranges, texts)));
    const [styleUse, scriptUse] = await Promise.all([told(used), told(uncalled)]);
    return { styleUse: styleUse.flat(), scriptUse: scriptUse.flat() };
  }

  /** Forgets the page, so that the next one is counted from its beginning. */
  async restart(): Promise<void> {
    this.#sheets.clear();
    await Promise.all([this.#usedRules(), this.#cdp.send('Profiler.takePreciseCoverage')]);
  }

  async #usedRules() {
    return this.#countsRules ? (await this.#cdp.send('CSS.takeCoverageDelta')).coverage : [];
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
