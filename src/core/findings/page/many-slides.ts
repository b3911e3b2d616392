import { groupBy } from '../../base/group-by.js';
import { slotOf } from '../../slots/family-key.js';
import type { PageCheck } from './page-case.js';

/** A slider with more pictures than anybody looks at: of one slot, all but some wait hidden or beside the window. */
export const manySlides: PageCheck = ({ placements, policy }) => {
  const [first] = placements;
  const oneView = placements.filter(({ view }) => view === first?.view);
  for (const [slot, slides] of groupBy(oneView, ({ selector }) => slotOf(selector))) {
    const waiting = slides.filter(({ shown, aside }) => !shown || aside).length;
    if (slides.length <= policy.ceilings.slides || waiting < slides.length / 2) continue;
    return {
      id: 'many-slides',
      message: `a slider of ${slides.length} pictures, of which ${waiting} wait where nobody sees them (${slot}); ${policy.ceilings.slides} are enough`,
    };
  }
  return undefined;
};
