import { max, min } from 'simple-statistics';
import type { Resources } from '../survey/resource.js';
import type { SurveyedVisit } from '../survey/survey.js';

/** How a page is put together, as far as it bears on loading. */
export interface PageLoad {
  /** Milliseconds to the first byte, at best. */
  readonly wait: number;
  /** The most of any view. */
  readonly elements: number;
  /** Scripts that are files, by how they run. */
  readonly scripts: {
    /** They hold up the first drawing. */
    readonly blocking: number;
    readonly deferred: number;
    readonly async: number;
    /** They run at once, but stand where they hold up nothing. */
    readonly late: number;
  };
}

/** How a page loads; `null` where that was not kept. */
export function pageLoadOf(
  { list, ofVisit, loads }: Resources,
  visits: readonly SurveyedVisit[],
  page: string,
): PageLoad | null {
  const own = visits.flatMap((visit, at) => (visit.page === page ? [at] : []));
  const found = own.flatMap((at) => loads[at] ?? []);
  if (found.length === 0) return null;
  const blocking = new Set(
    own.flatMap((at) =>
      ofVisit[at]!.map((place) => list[place]!)
        .filter(({ type, renderBlocking }) => type === 'script' && renderBlocking)
        .map(({ url }) => url),
    ),
  );
  const scripts = new Map(found.flatMap(({ parts }) => parts.scripts.map((one) => [one.url, one])));
  const others = [...scripts.values()].filter(({ url }) => !blocking.has(url));
  const count = (runs: string) => others.filter((script) => script.runs === runs).length;
  return {
    wait: min(found.map(({ wait }) => wait)),
    elements: max(found.map(({ elements }) => elements)),
    scripts: {
      blocking: blocking.size,
      deferred: count('deferred'),
      async: count('async'),
      late: count('at-once'),
    },
  };
}
