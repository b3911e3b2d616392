import { coloursOf } from '../pixels/colours.js';
import type { Colours } from '../pixels/colours.js';
import { similarity } from '../pixels/similarity.js';
import type { ImageFile } from './image-file.js';

/** Pixels of each side of a fingerprint, whatever the picture's ratio. */
export const fingerprintSide = 32;

/** Fingerprints of one picture in several sizes and formats are at least this much alike; 0.81 was the least seen. */
const leastAlike = 0.8;

/** Heights differ by so much where a width was rounded: pixels, and part of the height. */
const rounding = { pixels: 1.5, share: 0.01 } as const;

/** A picture shrunk to 32 × 32 pixels, red, green and blue, by which its sizes are recognised. */
export type Fingerprint = Uint8Array;

/** What a fingerprint is compared as. */
export function fingerprintColours(bytes: Fingerprint): Colours {
  const side = fingerprintSide;
  return coloursOf({ width: side, height: side, channels: 3, bytes });
}

/** Whether two fingerprints are of one picture. */
export function looksTheSame(one: Colours, other: Colours): boolean {
  return similarity(one, other) >= leastAlike;
}

/** Whether one file may be the other in another size: the same ratio but for rounding, and both still or both moving. */
export function sameShape(one: ImageFile, other: ImageFile): boolean {
  if (!one.intrinsic || !other.intrinsic || one.frames > 1 !== other.frames > 1) return false;
  const [small, large] =
    one.intrinsic.width <= other.intrinsic.width
      ? [one.intrinsic, other.intrinsic]
      : [other.intrinsic, one.intrinsic];
  const expected = (small.width * large.height) / large.width;
  const tolerance = Math.max(rounding.pixels, rounding.share * expected);
  return Math.abs(small.height - expected) <= tolerance;
}
