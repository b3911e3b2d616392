import { predictChange } from '../load/predict.js';
import type { RequestChanges } from '../load/changed-model.js';
import type { LoadModel } from '../load/load-model.js';
import type { GroupRow } from './groupings.js';
import type { Ranking } from './ranking.js';

/** A page of a survey that was timed in one of its views. */
export interface TimedPage {
  readonly page: string;
  readonly view: string;
  readonly model: LoadModel;
}

/** Milliseconds that an average visit to the timed pages would be spared; `null` where no load has the marker. */
export interface RowTime {
  readonly largestContentfulPaint: number | null;
  readonly load: number | null;
}

/**
 * What the pages that were timed would be spared if the images of a row weighed what they need: predicted for each page by
 * simulating its load, and averaged over these pages by their visits.
 *
 * @param timed at most one load of each page and view
 */
export function rowTimes(
  { ledger, images }: Pick<Ranking, 'ledger' | 'images'>,
  timed: readonly TimedPage[],
): (row: Pick<GroupRow, 'rows'>) => RowTime {
  const { visits } = ledger.facts;
  const models = new Map(timed.map((one) => [`${one.page}\n${one.view}`, one.model]));
  const modelOf = visits.map(({ page, view }) => models.get(`${page}\n${view}`));
  const urls = new Map(images.map(({ fileIndex, urls: all }) => [fileIndex, all]));
  const sumOf = (holds: (visit: number) => boolean) =>
    visits.reduce((sum, _, at) => sum + (modelOf[at] && holds(at) ? ledger.weights[at]! : 0), 0);
  return ({ rows }) => {
    const wasted = new Map<number, Map<string, number>>();
    for (const row of rows) {
      const visit = ledger.visit[row]!;
      if (!modelOf[visit]) continue;
      const { waste } = ledger.verdicts[ledger.verdictIndex[row]!]!;
      const saved = wasted.get(visit) ?? new Map<string, number>();
      wasted.set(visit, saved);
      for (const url of urls.get(ledger.file[row]!) ?? [])
        saved.set(url, Math.max(saved.get(url) ?? 0, waste?.wasteBytes ?? 0));
    }
    const spared = { largestContentfulPaint: 0, load: 0 };
    for (const [visit, saved] of wasted) {
      const model = modelOf[visit]!;
      const change = predictChange(model, changesOf(model, saved));
      for (const name of ['largestContentfulPaint', 'load'] as const)
        spared[name] -= (change[name] ?? 0) * ledger.weights[visit]!;
    }
    const average = (name: 'largestContentfulPaint' | 'load') => {
      const weight = sumOf((at) => modelOf[at]!.markers[name] !== null);
      return weight > 0 ? spared[name] / weight : null;
    };
    return { largestContentfulPaint: average('largestContentfulPaint'), load: average('load') };
  };
}

/** The requests of a load without what is wasted on them; one that needs nothing at all is not made. */
function changesOf(model: LoadModel, saved: ReadonlyMap<string, number>): RequestChanges {
  return new Map(
    model.requests.flatMap(({ url, bytes }) => {
      const less = saved.get(url) ?? 0;
      if (less <= 0) return [];
      return [[url, less >= bytes ? ('gone' as const) : { bytes: bytes - less }] as const];
    }),
  );
}
