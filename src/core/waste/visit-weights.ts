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

/**
 * Weighs visits so that a weighted sum is what an average visit has: a view by its share of the audience, a page by
 * its visits, each among those that were measured.
 *
 * @param unweighted lets every visit count the same
 */
export function weighVisits(
  visits: readonly SurveyedVisit[],
  pages: readonly Pick<SurveyedPage, 'url' | 'visits'>[],
  views: readonly View[],
  unweighted = false,
): VisitWeights {
  const measured = visits.filter((visit) => visit.measured);
  const visitsOf = new Map(pages.map(({ url, visits: count }) => [url, count]));
  const seen = new Set(measured.map(({ page }) => page));
  const known = [...seen].flatMap((page) => visitsOf.get(page) ?? []);
  const least = known.reduce((low, count) => Math.min(low, count), Infinity);
  const shares = new Map(views.map(({ name, share }) => [name, share]));
  const visitsTo = (page: string) => visitsOf.get(page) ?? (known.length > 0 ? least : 1);
  const plain = ({ page, view }: VisitKey) =>
    unweighted ? 1 : visitsTo(page) * (shares.get(view) ?? 0);
  const sum = measured.reduce((all, visit) => all + plain(visit), 0);
  return {
    // Views without any share would leave nothing to look at.
    of: (visit) => (sum > 0 ? plain(visit) / sum : 1 / measured.length),
    visitsAMonth:
      known.length > 0 ? [...seen].reduce((all, page) => all + visitsTo(page), 0) : null,
    guessedPages: known.length > 0 ? seen.size - known.length : 0,
  };
}
