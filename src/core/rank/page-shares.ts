import { ExactSums } from '../base/exact-sums.js';
import type { Ledger } from '../waste/ledger.js';

/** The share of each page in all visits; 0 for a page without any. */
export function pageShares({
  facts: { visits },
  weights,
}: Pick<Ledger, 'facts' | 'weights'>): (page: string) => number {
  const places = new Map<string, number>();
  for (const { page } of visits) if (!places.has(page)) places.set(page, places.size);
  const shares = new ExactSums(places.size);
  visits.forEach(({ page }, at) => shares.add(places.get(page)!, weights[at]!));
  return (page) => {
    const place = places.get(page);
    return place === undefined ? 0 : shares.at(place);
  };
}
