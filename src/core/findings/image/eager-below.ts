import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

/** Elements that can be told to wait. */
const kinds: ReadonlySet<string> = new Set(['img']);

/** Fetched at once though no view of a page has it in its first screen: its bytes could come later. */
export const eagerBelow: ImageCheck = ({ placements }) => {
  const inSight = new Set(
    placements.filter(({ shown, aboveFold }) => shown && aboveFold).map(({ page }) => page),
  );
  const early = placements.filter(
    ({ kind, shown, page, fetched, loading }) =>
      shown && kinds.has(kind) && loading !== 'lazy' && fetched === 'at-once' && !inSight.has(page),
  );
  if (early.length === 0) return undefined;
  return {
    id: 'eager-below',
    message: `outside the first screen, but fetched at once: say loading="lazy" (${whereOf(early)})`,
  };
};
