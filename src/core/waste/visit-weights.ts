import type { VisitKey } from '../survey/survey-tables.js';
import type { SurveyedPage, SurveyedVisit } from '../survey/survey.js';
import type { View } from '../visitors/view.js';

/** The weight of each visit. */
export interface VisitWeights {
  /** Of a visit among all of them; all together are 1. */
  of(visit: VisitKey): number;
  /** Visits a month to all pages together; `null` if unknown. */
  readonly visitsAMonth: number | null;
  /** Pages without visits, if others have them: they count as the least of those. */
  readonly guessedPages: number;
}

/** What visits are weighed by, from all of those that were measured. */
export interface VisitScale {
  /** The sum of their plain weights. */
  readonly sum: number;
  readonly measured: number;
  /** Visits a month to the least visited page; `null` if none are known. */
  readonly least: number | null;
  readonly visitsAMonth: number | null;
  readonly guessedPages: number;
}

/** A page as it is weighed. */
type WeighedPage = Pick<SurveyedPage, 'url' | 'visits'>;

/**
 * Weighs visits so that a weighted sum is what an average visit has: a view by its share of the audience, a page by
 * its visits, each among those that were measured.
 *
 * @param unweighted lets every visit count the same
 */
export function weighVisits(
  visits: readonly SurveyedVisit[],
  pages: readonly WeighedPage[],
  views: readonly View[],
  unweighted = false,
): VisitWeights {
  return weightsOn(scaleOf(visits, pages, views, unweighted), pages, views, unweighted);
}

/** What the visits of a survey are weighed by. */
export function scaleOf(
  visits: readonly SurveyedVisit[],
  pages: readonly WeighedPage[],
  views: readonly View[],
  unweighted = false,
): VisitScale {
  const measured = visits.filter((visit) => visit.measured);
  const visitsOf = new Map(pages.map(({ url, visits: count }) => [url, count]));
  const seen = new Set(measured.map(({ page }) => page));
  const known = [...seen].flatMap((page) => visitsOf.get(page) ?? []);
  const least = known.length > 0 ? known.reduce((low, count) => Math.min(low, count)) : null;
  const visitsTo = (page: string) => visitsOf.get(page) ?? least ?? 1;
  const plain = plainWeights(visitsTo, views, unweighted);
  return {
    sum: measured.reduce((all, visit) => all + plain(visit), 0),
    measured: measured.length,
    least,
    visitsAMonth: least === null ? null : [...seen].reduce((all, page) => all + visitsTo(page), 0),
    guessedPages: least === null ? 0 : seen.size - known.length,
  };
}

/** The weights of the visits to some pages, among all that a scale was made of. */
export function weightsOn(
  scale: VisitScale,
  pages: readonly WeighedPage[],
  views: readonly View[],
  unweighted = false,
): VisitWeights {
  const { sum, measured, least, visitsAMonth, guessedPages } = scale;
  const visitsOf = new Map(pages.map(({ url, visits }) => [url, visits]));
  const plain = plainWeights((page) => visitsOf.get(page) ?? least ?? 1, views, unweighted);
  return {
    // Views without any share would leave nothing to look at.
    of: (visit) => (sum > 0 ? plain(visit) / sum : 1 / measured),
    ...{ visitsAMonth, guessedPages },
  };
}

function plainWeights(
  visitsTo: (page: string) => number,
  views: readonly View[],
  unweighted: boolean,
): (visit: VisitKey) => number {
  const shares = new Map(views.map(({ name, share }) => [name, share]));
  return ({ page, view }) => (unweighted ? 1 : visitsTo(page) * (shares.get(view) ?? 0));
}
