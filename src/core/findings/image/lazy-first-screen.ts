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
  docs: {
    meaning: 'An image in the first screen is lazy.',
    why: 'The browser lays the page out before it asks for it.',
    computed: 'By loading="lazy" and its slots in all views.',
    ignore: 'Where it is in the first screen only of windows that few visitors have.',
  },
  check: ({ placements }) => {
    const late = placements.filter(
      ({ shown, aboveFold, loading }) => shown && aboveFold && loading === 'lazy',
    );
    return late.length > 0 ? { views: viewsOf(late), where: whereOf(late) } : undefined;
  },
  describe: ({ views, where }) =>
    `is in the first screen (${views.join(', ')}), but lazy, so it is requested too late: remove loading="lazy" (${whereWords(where)})`,
});
