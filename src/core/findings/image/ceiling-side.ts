import { heroShare } from '../../policy/ceilings.js';
import { widestSlot } from './ceiling-bytes.js';
import type { ImageCheck } from './finding.js';

/** A longer side than any screen asks for. */
export const ceilingSide: ImageCheck = (image) => {
  const { file, placements, policy } = image;
  if (!file.intrinsic || !placements.some(({ shown }) => shown)) return undefined;
  const longest = Math.max(file.intrinsic.width, file.intrinsic.height);
  const wide = widestSlot(image).share >= heroShare;
  const limit = wide ? policy.ceilings.heroSide : policy.ceilings.side;
  if (longest <= limit) return undefined;
  const kind = wide ? 'a picture as wide as the window' : 'a content image';
  return {
    id: 'ceiling-side',
    message: `its longest side has ${longest} pixels; ${kind} has at most ${limit} by the rule of thumb`,
  };
};
