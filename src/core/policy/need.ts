import type { Allowance } from './allowance.js';
import { nothingAllowed } from './allowance.js';
import type { Policy } from './policy.js';
import { renderedSize } from '../slots/rendered-size.js';
import type { Sizing } from '../slots/rendered-size.js';
import type { Size } from '../base/size.js';

/** What the need of one placement follows from. */
export interface Shown extends Sizing {
  /** Device pixels to one CSS pixel in the view it was seen in. */
  readonly density: number;
}

/**
 * The part of a file's width and height that would be enough for one placement: rendered size × density (capped by
 * policy) × what a rule allows besides, in the file's own ratio, and never more than the file has.
 *
 * @param seen device pixels to one CSS pixel in the view it was seen in
 * @param intrinsic pixels of the file, orientation applied
 * @returns above 0, at most 1
 */
export function needFactor(
  shown: Sizing,
  seen: number,
  intrinsic: Size,
  policy: Pick<Policy, 'density'>,
  { zoom, minimum, exempt }: Allowance = nothingAllowed,
): number {
  if (exempt) return 1;
  const rendered = renderedSize(shown, intrinsic);
  const density = Math.min(seen, policy.density) * zoom;
  const across = (rendered.width * density) / intrinsic.width;
  const down = (rendered.height * density) / intrinsic.height;
  return Math.min(1, Math.max(across, down, minimum / intrinsic.width));
}

/**
 * The pixels that would be enough for one placement.
 *
 * @returns whole pixels, at least 1 × 1
 */
export function needOf(
  shown: Shown,
  intrinsic: Size,
  policy: Pick<Policy, 'density'>,
  allowance?: Allowance,
): Size {
  return pixelsAt(intrinsic, needFactor(shown, shown.density, intrinsic, policy, allowance));
}

/**
 * The file's pixels times `factor`: the width rounded up, where a hair over a whole pixel does not cost another; the height
 * to the nearest pixel of the file's ratio, so that a page which goes by the ratio is laid out as it was.
 */
export function pixelsAt({ width, height }: Size, factor: number): Size {
  const across = Math.max(1, Math.min(width, Math.ceil(width * factor - 0.01)));
  return { width: across, height: Math.max(1, Math.round((across * height) / width)) };
}
