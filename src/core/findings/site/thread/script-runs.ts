import { mean } from 'simple-statistics';
import type { ScriptTime } from '../../../survey/load-facts.js';
import type { SentFile, SiteCase } from '../site-case.js';

/** What a script did in long frames. */
export interface ScriptRuns {
  /** Milliseconds in the mean over all visits that were sent it. */
  readonly mean: number;
  /** The function that took the longest in any of them; empty if it has no name. */
  readonly function: string;
}

/** What a script did in the visits that were sent it; `undefined` where nothing was kept of them. */
export function scriptRunsOf(
  file: SentFile,
  site: SiteCase,
  what: 'time' | 'forced',
): ScriptRuns | undefined {
  const { url } = file.resource;
  const runs = site.loadsOf(file).map((load) => load.scriptTimes.find((one) => one.url === url));
  if (runs.length === 0) return undefined;
  const spent = (run: ScriptTime | undefined) => run?.[what] ?? 0;
  const [longest] = runs.toSorted((a, b) => spent(b) - spent(a));
  return { mean: Math.round(mean(runs.map(spent))), function: longest?.function ?? '' };
}
