import { formatSize } from '../../base/size.js';
import type { Size } from '../../base/size.js';
import { renderedSize } from '../../slots/rendered-size.js';
import { imageFinding } from './image-case.js';

/** A picture that is drawn with more pixels than it has, by more than a tenth, looks blurred. */
const tolerance = 1.1;

export const tooFewPixels = imageFinding({
  id: 'too-few-pixels',
  title: 'blurred: too few pixels',
  doer: 'content',
  fix: 'Use a file with more pixels; the finding names one where the survey knows it.',
  isWork: true,
  docs: {
    meaning: 'A picture is drawn more than a tenth larger than it is.',
    why: 'It looks blurred.',
    computed: 'By its pixels and its largest slot, at density 1.',
    ignore: 'Where it is meant to look so.',
  },
  check: ({ file, placements, larger }) => {
    const { intrinsic } = file;
    if (!intrinsic) return undefined;
    let worst: { factor: number; slot: Size; view: string } | undefined;
    for (const placement of placements) {
      const { slot, shown, view } = placement;
      // Judged at density 1: a dense screen wants more, but only this much is blurred on every one.
      const factor = renderedSize(placement, intrinsic).width / intrinsic.width;
      if (shown && factor > (worst?.factor ?? tolerance)) worst = { factor, slot, view };
    }
    return worst && { ...worst, larger: larger ?? null };
  },
  describe: ({ factor, slot, view, larger }) =>
    `is drawn ${factor.toFixed(1)} times larger than it is (${formatSize(slot)} in ${view}), so it looks blurred` +
    (larger ? `; the site has it in ${formatSize(larger.intrinsic)}: ${larger.url}` : ''),
});
