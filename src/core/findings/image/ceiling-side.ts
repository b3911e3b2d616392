import { heroShare } from '../../policy/ceilings.js';
import { offeredWidths, parseSrcset } from '../../slots/srcset.js';
import { renderedSize } from '../../slots/rendered-size.js';
import { widestSlot } from './ceiling-bytes.js';
import { imageFinding } from './image-case.js';

/** A longer side than any screen asks for. */
export const ceilingSide = imageFinding({
  id: 'ceiling-side',
  title: 'longer than any screen needs',
  doer: 'content',
  fix: 'Scale it down before it is uploaded.',
  isWork: false,
  docs: {
    meaning: 'A file is longer than 1500 px, or than 2560 px where it is as wide as the window.',
    why: 'No screen shows so many pixels of it.',
    computed:
      'By the pixels of the file and the width of its slots. policy.ceilings sets the limits.',
    ignore: 'Where visitors zoom into it.',
  },
  check: (image) => {
    const { file, placements, policy, views } = image;
    const { intrinsic } = file;
    // What a browser chose among several widths is the next one that was enough: srcset and sizes have findings of their own.
    const shown = placements.filter(
      ({ shown: seen, markup }) =>
        seen && offeredWidths(parseSrcset(markup?.srcset ?? '')).length < 2,
    );
    if (!intrinsic || shown.length === 0) return undefined;
    // A screen that draws every pixel of it does need them.
    const isAsked = shown.some((placement) => {
      const density = views.get(placement.view)?.density ?? 1;
      return renderedSize(placement, intrinsic).width * density >= intrinsic.width;
    });
    if (isAsked) return undefined;
    const longest = Math.max(intrinsic.width, intrinsic.height);
    const wide = widestSlot(image).share >= heroShare;
    const limit = wide ? policy.ceilings.heroSide : policy.ceilings.side;
    return longest > limit ? { longest, wide, limit } : undefined;
  },
  describe: ({ longest, wide, limit }) =>
    `its longest side has ${longest} pixels; the rule of thumb allows ${limit} for ${wide ? 'a picture as wide as the window' : 'a content image'}`,
});
