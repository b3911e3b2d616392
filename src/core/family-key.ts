import type { RankedDelivery } from './groupings.js';

/** What a slot family is: the same slot on all the pages of a group. */
export interface FamilyKey {
  /** Page group, or the address of a page that is alone. */
  readonly where: string;
  /** Kind of placement; `null` where no element shows the file. */
  readonly kind: string | null;
  /** Selector without the places of elements among their like; the host of a file that nothing shows. */
  readonly slot: string;
}

/** The family of one delivery, as a text. */
export function familyKey(
  { delivery, image }: RankedDelivery,
  { groups }: { readonly groups: ReadonlyMap<string, string | null> },
): string {
  const placement =
    delivery.deciding ?? image.placed.find(({ page }) => page === delivery.page) ?? null;
  const where = groups.get(delivery.page) ?? delivery.page;
  const slot = placement ? slotOf(placement.selector) : '';
  return [where, placement?.kind ?? '', slot].join('\n');
}

/** A family's key as the parts that it is made of. */
export function readFamilyKey(key: string): FamilyKey {
  const [where = '', kind = '', slot = ''] = key.split('\n');
  return { where, kind: kind || null, slot };
}

const known = new Map<string, string>();
/** Selectors are remembered up to this many: on pages of one template they are the same. */
const maxKnown = 10_000;

/** A selector without the places of elements among their like, and without numbers that count them in an id. */
export function slotOf(selector: string): string {
  const before = known.get(selector);
  if (before !== undefined) return before;
  const slot = selector
    .replace(/:nth-of-type\(\d+\)/g, '')
    .replace(/(#[\w-]*?[-_])\d+\b/g, '$1*')
    .replace(/\n/g, ' ');
  if (known.size >= maxKnown) known.clear();
  known.set(selector, slot);
  return slot;
}
