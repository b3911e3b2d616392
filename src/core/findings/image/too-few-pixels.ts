import { renderedSize } from '../../slots/rendered-size.js';
import { formatSize } from '../../base/size.js';
import type { ImageCheck } from './finding.js';

/** A picture that is drawn with more pixels than it has, by more than a tenth, looks blurred. */
const tolerance = 1.1;

export const tooFewPixels: ImageCheck = ({ file, placements }) => {
  const { intrinsic } = file;
  if (!intrinsic) return undefined;
  let worst = tolerance;
  let where = '';
  for (const placement of placements) {
    const { slot, shown, view } = placement;
    // Judged at density 1: a dense screen wants more, but only this much is blurred on every one.
    const factor = renderedSize(placement, intrinsic).width / intrinsic.width;
    if (shown && factor > worst) {
      worst = factor;
      where = `${formatSize(slot)} in ${view}`;
    }
  }
  if (!where) return undefined;
  return {
    id: 'too-few-pixels',
    message: `drawn ${worst.toFixed(1)} times larger than it is (${where}): it looks blurred`,
  };
};
