import type { Delivery } from '../waste/ledger.js';
import type { Size } from '../base/size.js';
import type { Waste } from '../waste/waste.js';

/** What it comes to each time that a file is sent in some views, with the same need. */
export interface Sending {
  /** Names of the views, in their order, and how many pages are seen so in them. */
  readonly views: readonly { readonly name: string; readonly pages: number }[];
  /** `null` for vectors, and where nothing is shown. */
  readonly need: Size | null;
  readonly waste: Waste;
}

/**
 * Each time that a file is sent, those with the same outcome together, the largest need first.
 *
 * @param deliveries of one file
 * @param viewOf the name of the view of a visit
 */
export function sendingsOf(
  deliveries: readonly Delivery[],
  viewOf: (visit: number) => string,
): Sending[] {
  const found = new Map<string, { need: Size | null; waste: Waste; views: Map<string, number> }>();
  for (const { verdict, visit } of deliveries) {
    const { need, waste } = verdict;
    if (!waste) continue;
    const key = [need?.width ?? 0, waste.sentBytes, waste.neededBytes].join();
    const same = found.get(key) ?? { need, waste, views: new Map<string, number>() };
    found.set(key, same);
    same.views.set(viewOf(visit), (same.views.get(viewOf(visit)) ?? 0) + 1);
  }
  return [...found.values()]
    .map(({ views, ...same }) => ({
      ...same,
      views: [...views].map(([name, pages]) => ({ name, pages })),
    }))
    .sort((a, b) => (b.need?.width ?? 0) - (a.need?.width ?? 0));
}
