import { groupBy } from '../../base/group-by.js';
import { slotOf } from '../../slots/family-key.js';
import { pageFinding } from './page-case.js';

/** A slider with more pictures than visitors see: all but a few of one slot are hidden or beside the window. */
export const manySlides = pageFinding({
  id: 'many-slides',
  title: 'slider with too many pictures',
  doer: 'content',
  fix: 'Keep the few pictures that people look at, and load the others when they are asked for.',
  isWork: false,
  docs: {
    meaning:
      'More than five pictures share a slot, and at least half of them wait hidden or beside the window.',
    why: 'All of them load, and hardly anybody looks at the last.',
    computed: 'By the slots of the page and what is shown in them.',
    ignore: 'Where the slides load when they are asked for.',
  },
  check: ({ placements, policy }) => {
    const limit = policy.ceilings.slides;
    const [first] = placements;
    const oneView = placements.filter(({ view }) => view === first?.view);
    for (const [slot, slides] of groupBy(oneView, ({ selector }) => slotOf(selector))) {
      const waiting = slides.filter(({ shown, aside }) => !shown || aside).length;
      if (slides.length <= limit || waiting < slides.length / 2) continue;
      return { slides: slides.length, waiting, slot, limit };
    }
    return undefined;
  },
  describe: ({ slides, waiting, slot, limit }) =>
    `a slider has ${slides} pictures, of which ${waiting} wait where nobody sees them (${slot}); ${limit} are enough`,
});
