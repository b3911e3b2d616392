import { viewsOf, whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

/** Lazy though it is in the first screen: the browser requests it only after layout. */
export const lazyFirstScreen = imageFinding({
  id: 'lazy-first-screen',
  title: 'lazy in the first screen',
  doer: 'markup',
  fix: 'Remove loading="lazy".',
  isWork: true,
  isInSnippets: true,
  check: ({ placements }) => {
    const late = placements.filter(
      ({ shown, aboveFold, loading }) => shown && aboveFold && loading === 'lazy',
    );
    return late.length > 0 ? { views: viewsOf(late), where: whereOf(late) } : undefined;
  },
  describe: ({ views, where }) =>
    `is in the first screen (${views.join(', ')}), but lazy, so it is requested too late: remove loading="lazy" (${whereWords(where)})`,
});
