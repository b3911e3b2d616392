/** A slot family: the same slot on all the pages of a group. */
export interface FamilyKey {
  /** Page group, or the address of a page that is alone. */
  readonly where: string;
  /** Kind of placement; `null` where no element shows the file. */
  readonly kind: string | null;
  /** Selector without the places of elements among their like. */
  readonly slot: string;
}

/** A family's key as the parts that it is made of. */
export function readFamilyKey(key: string): FamilyKey {
  const [where = '', kind = '', slot = ''] = key.split('\n');
  return { where, kind: kind || null, slot };
}

/** A selector without the places of elements among their like, and without numbers that count them in an id. */
export function slotOf(selector: string): string {
  return selector
    .replace(/:nth-of-type\(\d+\)/g, '')
    .replace(/(#[\w-]*?[-_])\d+\b/g, '$1*')
    .replace(/\n/g, ' ');
}
