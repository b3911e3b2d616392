import { whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

/** Fetched at once though no view of a page has it in its first screen: its bytes could come later. */
export const eagerBelow = imageFinding({
  id: 'eager-below',
  title: 'below the first screen, but not lazy',
  doer: 'markup',
  fix: 'Add loading="lazy".',
  isWork: true,
  isInSnippets: true,
  docs: {
    meaning: 'An image is fetched at once, though no view of the page has it in its first screen.',
    why: 'It competes with what visitors see first.',
    computed: 'By its slots in all views of a page, and when it was requested.',
    ignore: 'Where a visitor gets to it at once, by a link into the page.',
  },
  check: ({ placements, isInSight }) => {
    const inSight = new Set(
      placements.filter(({ shown, aboveFold }) => shown && aboveFold).map(({ page }) => page),
    );
    const early = placements.filter(
      (placement) =>
        placement.shown &&
        placement.kind === 'img' &&
        placement.loading !== 'lazy' &&
        placement.fetched === 'at-once' &&
        !inSight.has(placement.page) &&
        !isInSight(placement),
    );
    return early.length > 0 ? { where: whereOf(early) } : undefined;
  },
  describe: ({ where }) =>
    `is outside the first screen, but fetched at once: add loading="lazy" (${whereWords(where)})`,
});
