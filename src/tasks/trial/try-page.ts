import { PageError } from '../../core/base/errors.js';
import { compareSessions } from '../../core/load/comparison.js';
import { modelOf } from '../../core/load/load-model.js';
import { predictChange } from '../../core/load/predict.js';
import { countedRuns, medianRun } from '../../core/load/session.js';
import type { Session } from '../../core/load/session.js';
import { movedPlacements } from '../../core/trial/moved-placements.js';
import { comparedPage } from '../clock/compare.js';
import type { Fix } from './fixes/fix.js';
import { loadForms } from './load-forms.js';
import type { LoadedForm, TrialGround } from './load-forms.js';
import type { RecordedPage } from './record-page.js';
import { formsOf } from './trial-forms.js';
import type { AppliedFix, TriedPage, TrialOptions } from './trial-options.js';

/** A page, and the fixes that are tried on it. */
export interface PageTrial {
  readonly page: RecordedPage;
  readonly fixes: readonly Fix[];
  readonly place: { readonly label: string; readonly index: number; readonly count: number };
}

/**
 * Loads a page as it is and with fixes, in turn.
 *
 * @returns `null` when it was stopped before both sides were loaded
 * @throws PageError when no load of a side succeeded.
 */
export async function tryPage(
  ground: TrialGround,
  { page: { recording, file, missing }, fixes, place }: PageTrial,
  options: TrialOptions,
): Promise<TriedPage | null> {
  const { workspace, tools } = ground;
  const { forms, applied, changes } = await formsOf(recording, fixes, tools, options.each);
  const loaded = await loadForms(ground, forms, (name) => labelOf(place, name), options);
  const [before, after] = loaded as [LoadedForm, LoadedForm];
  for (const { cold } of [before, after])
    if (countedRuns(cold).length === 0) {
      if (options.signal?.aborted) return null;
      throw new PageError(`${recording.page} could not be replayed: ${failureOf(cold)}`, {
        hint:
          fixes.length > 0
            ? 'try it without fixes (--fix none); what is not in the recording is missing there'
            : 'clock times the page as it is; a page that reloads itself cannot be replayed',
      });
    }
  const alone = new Map(
    loaded
      .slice(2)
      .filter(({ cold }) => countedRuns(cold).length > 0)
      .map(({ name, cold }) => [name, compareSessions(before.cold, cold)]),
  );
  const model = modelOf(medianRun(before.cold), options.network);
  const layout = { placements: before.side.placements.found ?? [], view: options.view };
  const isWarm = [before, after].every(({ warm }) => warm && countedRuns(warm).length > 0);
  const sources = [before, after].map(({ side }) => side.source);
  return {
    ...(await comparedPage(workspace, before.cold, after.cold)),
    warm: isWarm ? await comparedPage(null, before.warm!, after.warm!) : null,
    fixes: applied.map((fix): AppliedFix => {
      const change = changes.get(fix.name);
      return {
        ...fix,
        alone: alone.get(fix.name) ?? null,
        predicted: change ? predictChange(model, change(layout)) : null,
      };
    }),
    ...{ recording: file, missing, films: [before.film, after.film] },
    unrecorded: distinct(
      sources.flatMap((source) => source.unrecorded),
      ({ method, url }) => `${method} ${url}`,
    ),
    alike: distinct(
      sources.flatMap((source) => source.alike),
      ({ asked }) => asked,
    ),
    ...movedPlacements(before.side.placements.found ?? [], after.side.placements.found ?? []),
  };
}

function failureOf({ runs }: Session): string {
  return runs[0]?.failure ?? 'no load was made';
}

function labelOf({ label, index, count }: PageTrial['place'], name: string): string {
  return count === 1 ? `${label}-${name}` : `${label}-${index + 1}-${name}`;
}

function distinct<Item>(items: readonly Item[], keyOf: (item: Item) => string): Item[] {
  return [...new Map(items.map((item) => [keyOf(item), item])).values()];
}
