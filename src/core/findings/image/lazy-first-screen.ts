import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

export const lazyFirstScreen: ImageCheck = ({ placements }) => {
  const late = placements.filter(
    ({ shown, aboveFold, loading }) => shown && aboveFold && loading === 'lazy',
  );
  if (late.length === 0) return undefined;
  const views = [...new Set(late.map(({ view }) => view))].join(', ');
  return {
    id: 'lazy-first-screen',
    message: `in the first screen (${views}), but lazy: it is asked for too late (${whereOf(late)})`,
  };
};
