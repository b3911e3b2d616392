import { whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

/** Elements that can have alternative text and should at least declare none (`alt=""`). */
const kinds: ReadonlySet<string> = new Set(['img', 'input']);

export const noAlternative = imageFinding({
  id: 'no-alternative',
  title: 'no alternative text',
  doer: 'markup',
  fix: 'Add alt with what the picture shows, or alt="" where it only decorates.',
  isWork: true,
  docs: {
    meaning: 'An image has no attribute alt.',
    why: 'Who cannot see it is told its address instead.',
    computed: 'By the markup of all elements that show it; an empty alt is fine.',
    ignore: 'Never: an image that only decorates gets alt="".',
  },
  check: ({ placements }) => {
    const bare = placements.filter(
      ({ kind, shown, markup }) => shown && kinds.has(kind) && markup?.alt === null,
    );
    return bare.length > 0 ? { where: whereOf(bare) } : undefined;
  },
  describe: ({ where }) => `has no alternative text (alt is missing): ${whereWords(where)}`,
});
