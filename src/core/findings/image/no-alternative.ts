import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

/** Elements that can carry alternative text, and should say at least that there is none (`alt=""`). */
const kinds: ReadonlySet<string> = new Set(['img', 'input']);

export const noAlternative: ImageCheck = ({ placements }) => {
  const bare = placements.filter(
    ({ kind, shown, markup }) => shown && kinds.has(kind) && markup?.alt === null,
  );
  if (bare.length === 0) return undefined;
  return {
    id: 'no-alternative',
    message: `no alternative text (alt is missing): ${whereOf(bare)}`,
  };
};
