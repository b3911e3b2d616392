import { similarity } from '../core/pixels/similarity.js';
import type { Size } from '../core/base/size.js';
import { reduce } from './picture.js';

/**
 * The least similarity of a larger file, reduced, to a smaller file of the same picture. Measured on eleven wallpapers
 * reduced to three widths: at least 0.86 with other reductions, a little sharpened, as JPEG of quality 40 to 82; at most 0.82
 * with a margin of 1.5 % cut off, tinted, grey, or with words on it.
 */
const leastSimilar = 0.85;

/**
 * Whether one file shows what another does, so that it may be reduced in its place.
 *
 * @param size of the smaller file
 * @throws Error when one of them cannot be decoded to the end.
 */
export async function isSamePicture(larger: Buffer, smaller: Buffer, size: Size): Promise<boolean> {
  const [ideal, own] = await Promise.all([reduce(larger, 1, size), reduce(smaller, 1, size)]);
  return similarity(ideal.colours, own.colours) >= leastSimilar;
}
