import type { Policy } from './policy.js';
import { renderedSize } from './rendered-size.js';
import type { Sizing } from './rendered-size.js';
import type { Size } from './size.js';

/** What the need of one placement follows from. */
export interface Shown extends Sizing {
  /** Device pixels to one CSS pixel in the view it was seen in. */
  readonly density: number;
}

/**
 * The pixels that would be enough for one placement: rendered size × density (capped by policy),
 * in the file's own ratio, and never more than the file has.
 *
 * @param intrinsic pixels of the file, orientation applied
 * @returns whole pixels, at least 1 × 1
 */
export function needOf(shown: Shown, intrinsic: Size, policy: Pick<Policy, 'density'>): Size {
  const rendered = renderedSize(shown, intrinsic);
  const density = Math.min(shown.density, policy.density);
  const across = (rendered.width * density) / intrinsic.width;
  const down = (rendered.height * density) / intrinsic.height;
  return pixelsAt(intrinsic, Math.min(1, Math.max(across, down)));
}

/** The largest of several needs of the same file; `undefined` when there are none. */
export function largestNeed(needs: readonly Size[]): Size | undefined {
  return needs.reduce<Size | undefined>(
    (largest, need) => (!largest || need.width > largest.width ? need : largest),
    undefined,
  );
}

/** The file's pixels times `factor`, rounded up; a hair over a whole pixel does not cost another. */
function pixelsAt(intrinsic: Size, factor: number): Size {
  const side = (pixels: number) => Math.max(1, Math.min(pixels, Math.ceil(pixels * factor - 0.01)));
  return { width: side(intrinsic.width), height: side(intrinsic.height) };
}
