import { keptAddress } from '../../core/address/address.js';
import type { HintElement, LoadFacts } from '../../core/survey/load-facts.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { FoundLoad } from '../in-page/load-facts.js';
import type { TextCollector } from '../network/texts.js';
import { usedRules } from './rule-use.js';
import type { Tab } from './tab.js';

/** How a visit loaded: what the document tells, with what the network and the browser's coverage know. */
export async function loadFactsOf(
  found: FoundLoad,
  { recorder, coverage }: Pick<Tab, 'recorder' | 'coverage'>,
  texts: TextCollector,
  worlds: readonly IsolatedWorld[],
  placements: readonly { readonly url: string }[],
): Promise<LoadFacts> {
  const document = recorder.document;
  const shown = new Set(placements.map(({ url }) => keptAddress(url)));
  const withUse = (hint: HintElement): HintElement =>
    hint.rel === 'preload' && hint.as === 'image' ? { ...hint, used: shown.has(hint.url) } : hint;
  const { timing } = document ?? {};
  return {
    ...found,
    parts: { ...found.parts, hints: found.parts.hints.map(withUse) },
    wait: timing ? Math.max(0, Math.round(timing.receiveHeadersEnd - timing.sendEnd)) : 0,
    redirects: recorder.recorded
      .filter(({ id, redirectsTo }) => id === document?.id && redirectsTo !== '')
      .map(({ url }) => url),
    styleUse: await usedRules(worlds, recorder, texts),
    scriptUse: await coverage.take(texts),
  };
}
