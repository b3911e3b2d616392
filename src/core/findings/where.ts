import type { Placement } from '../slots/placement.js';

/** Where placements are. */
export interface Where {
  /** Of the first of them. */
  readonly selector: string;
  readonly page: string;
  /** On how many pages they are. */
  readonly pages: number;
}

/** Where some placements are; at least one. */
export function whereOf(placements: readonly Pick<Placement, 'page' | 'selector'>[]): Where {
  const { selector, page } = placements[0]!;
  return { selector, page, pages: new Set(placements.map((placement) => placement.page)).size };
}

/** `#hero > img on http://brindlebay.test/ and 3 more pages`. */
export function whereWords({ selector, page, pages }: Where): string {
  const more = pages === 1 ? '' : ` and ${pages - 1} more ${pages === 2 ? 'page' : 'pages'}`;
  return `${selector} on ${page}${more}`;
}

/** The names of the views that placements were seen in. */
export function viewsOf(placements: readonly Pick<Placement, 'view'>[]): string[] {
  return [...new Set(placements.map(({ view }) => view))];
}
