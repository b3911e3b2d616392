import { ruleUse } from '../../core/survey/style-use.js';
import type { SeenNames, StyleRule } from '../../core/survey/style-use.js';
import type { TextUse } from '../../core/survey/load-facts.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import { typeOf } from '../network/recorded-request.js';
import type { TextCollector } from '../network/texts.js';

/** Milliseconds that the documents of a page may take to answer for their elements. */
const patience = 1_500;
/** The most rules of a page that are asked for. */
const maxRules = 100_000;
/** The most documents that are asked: a page that frames others many times frames mostly the same. */
const maxDocuments = 10;

/**
 * The rules of the page's style sheets that have an element in it: at any width, in any state (`:hover`), for any medium. The
 * browser could count those that it applies, but computes styles several times slower when it does, in a style sheet of a
 * megabyte so much that a visit takes three times as long.
 *
 * @param worlds of the page and its frames
 */
export async function usedRules(
  worlds: readonly IsolatedWorld[],
  recorder: NetworkRecorder,
  texts: TextCollector,
): Promise<TextUse[]> {
  const sheets = await rulesByContent(recorder, texts);
  if (sheets.size === 0) return [];
  const rules = [...sheets.values()].flat();
  const used = new Set<StyleRule>();
  const end = performance.now() + patience;
  for (const [at, world] of worlds.slice(0, maxDocuments).entries()) {
    const left = rules.filter((rule) => !used.has(rule));
    const found = await usedIn(world, left, end - performance.now());
    // What a page uses that has left is not known; a frame may be taken away.
    if (!found && at === 0) return [];
    for (const rule of found ?? []) used.add(rule);
  }
  return [...sheets].map(([contentHash, ofSheet]) => ({
    contentHash,
    ranges: ofSheet.flatMap((rule) => (used.has(rule) ? [rule.start, rule.end] : [])),
  }));
}

/** @returns `undefined` for a document that is no more there */
async function usedIn(
  world: IsolatedWorld,
  rules: readonly StyleRule[],
  limit: number,
): Promise<readonly StyleRule[] | undefined> {
  try {
    const { used, asked } = ruleUse(rules, await world.call<SeenNames>('namesSeen'));
    if (asked.size === 0) return [...used];
    const matched = await world.call<number[]>('matchedSelectors', [...asked.keys()], limit);
    return [...used, ...[...asked.values()].filter((_, at) => matched[at] === 1).flat()];
  } catch {
    return undefined;
  }
}

async function rulesByContent(
  { recorded }: NetworkRecorder,
  texts: TextCollector,
): Promise<Map<string, readonly StyleRule[]>> {
  const urls = new Set(recorded.filter((one) => typeOf(one) === 'style').map(({ url }) => url));
  const sheets = new Map<string, readonly StyleRule[]>();
  let left = maxRules;
  for (const sheet of await Promise.all([...urls].map((url) => texts.rulesAt(url))))
    if (sheet && (left -= sheet[1].length) >= 0) sheets.set(...sheet);
  return sheets;
}
