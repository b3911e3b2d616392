import { groupBy } from '../base/group-by.js';
import type { Size } from '../base/size.js';
import type { PlacementKind } from '../slots/placement.js';

/** A placement of a page as it is laid out. */
export interface PlacementSize {
  readonly kind: PlacementKind;
  readonly selector: string;
  readonly url: string;
  /** CSS pixels. */
  readonly slot: Size;
  /** CSS pixels from the left and from the top of the page to its edges. */
  readonly left: number;
  readonly top: number;
}

/** A placement whose rendered size is another on the other side. */
export interface MovedPlacement {
  readonly before: PlacementSize;
  readonly after: PlacementSize;
}

/** CSS pixels by which a size may differ. */
const tolerance = 1;

/**
 * The placements whose rendered size changed. The placements of one kind are paired in the order of the document, where
 * both sides have as many; else by their selectors, `<picture>` elements around them left out.
 *
 * @returns the pairs that differ, and how many placements have no counterpart
 */
export function movedPlacements(
  before: readonly PlacementSize[],
  after: readonly PlacementSize[],
): { readonly moved: readonly MovedPlacement[]; readonly unpaired: number } {
  const [one, other] = [before, after].map((side) => groupBy(side, ({ kind }) => kind));
  const kinds = new Set([...one!.keys(), ...other!.keys()]);
  const pairs: MovedPlacement[] = [];
  for (const kind of kinds) {
    const [was, is] = [one!.get(kind) ?? [], other!.get(kind) ?? []];
    if (was.length === is.length)
      pairs.push(...was.map((placement, at) => ({ before: placement, after: is[at]! })));
    else {
      const places = new Map(is.map((placement) => [bare(placement.selector), placement]));
      for (const placement of was) {
        const match = places.get(bare(placement.selector));
        if (match) pairs.push({ before: placement, after: match });
      }
    }
  }
  return {
    moved: pairs.filter((pair) => differs(pair.before.slot, pair.after.slot)),
    unpaired: before.length + after.length - 2 * pairs.length,
  };
}

/** A selector without the `<picture>` elements in it. */
export function bare(selector: string): string {
  return selector.replace(/ > picture(?::[\w-]+(?:\([^)]*\))?)?/g, '');
}

function differs(one: Size, other: Size): boolean {
  return (['width', 'height'] as const).some(
    (side) => Math.abs(one[side] - other[side]) > tolerance,
  );
}
