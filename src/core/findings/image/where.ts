import type { Placement } from '../../slots/placement.js';

/** Where placements are: the first of them, and on how many pages more. */
export function whereOf(placements: readonly Pick<Placement, 'page' | 'selector'>[]): string {
  const [first] = placements;
  const pages = new Set(placements.map(({ page }) => page)).size;
  if (!first) return 'nowhere';
  const more = pages === 1 ? '' : ` and on ${pages - 1} more ${pages === 2 ? 'page' : 'pages'}`;
  return `${first.selector} on ${first.page}${more}`;
}
