import { heroShare } from '../../policy/ceilings.js';
import { widestSlot } from './ceiling-bytes.js';
import { imageFinding } from './image-case.js';

/** A longer side than any screen asks for. */
export const ceilingSide = imageFinding({
  id: 'ceiling-side',
  title: 'longer than any screen needs',
  doer: 'content',
  fix: 'Scale it down before it is uploaded.',
  isWork: false,
  check: (image) => {
    const { file, placements, policy } = image;
    if (!file.intrinsic || !placements.some(({ shown }) => shown)) return undefined;
    const longest = Math.max(file.intrinsic.width, file.intrinsic.height);
    const wide = widestSlot(image).share >= heroShare;
    const limit = wide ? policy.ceilings.heroSide : policy.ceilings.side;
    return longest > limit ? { longest, wide, limit } : undefined;
  },
  describe: ({ longest, wide, limit }) =>
    `its longest side has ${longest} pixels; the rule of thumb allows ${limit} for ${wide ? 'a picture as wide as the window' : 'a content image'}`,
});
