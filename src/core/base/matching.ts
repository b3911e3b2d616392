import { groupBy } from './group-by.js';

/** Two items that match, or one without a match. */
export interface Match<Item, By> {
  readonly before: Item | null;
  readonly after: Item | null;
  /** How the two were matched; `null` for one without a match. */
  readonly by: By | null;
}

/** A way to match items: by a name; `undefined` for items that it cannot match. */
export interface Likeness<Item, By> {
  readonly by: By;
  readonly before: (item: Item) => string;
  readonly after: (item: Item) => string;
}

/**
 * Pairs the items of two sides, by one likeness after the other: those that the first one pairs are out of the way of
 * the next. Of several with one name the first belong together, in their order.
 *
 * @returns the pairs, then those that are only before, then those that are only after
 */
export function matchInTurn<Item, By>(
  before: readonly Item[],
  after: readonly Item[],
  likenesses: readonly Likeness<Item, By>[],
): Match<Item, By>[] {
  const matches: Match<Item, By>[] = [];
  let [left, right] = [before, after];
  for (const likeness of likenesses) {
    const waiting = groupBy(right, likeness.after);
    const taken = new Set<Item>();
    left = left.filter((item) => {
      const key = likeness.before(item);
      const other = key === '' ? undefined : waiting.get(key)?.shift();
      if (other === undefined) return true;
      taken.add(other);
      matches.push({ before: item, after: other, by: likeness.by });
      return false;
    });
    right = right.filter((item) => !taken.has(item));
  }
  return [
    ...matches,
    ...left.map((item) => ({ before: item, after: null, by: null })),
    ...right.map((item) => ({ before: null, after: item, by: null })),
  ];
}
