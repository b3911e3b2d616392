import { halved } from './luma.js';
import type { Luma } from './luma.js';
import { eachWindow, halvingsOf } from './windows.js';

/** Stabilisers of the quotients, for values from 0 to 255 (K1 = 0.01, K2 = 0.03). */
const c1 = (0.01 * 255) ** 2;
const c2 = (0.03 * 255) ** 2;

/** The weight of each scale, the finest first; found by the authors in a test with people. */
const scaleWeights = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333] as const;

/** The average over the windows of one scale. */
interface Indices {
  /** Likeness of luminance, contrast and structure. */
  readonly whole: number;
  /** Likeness of contrast and structure alone. */
  readonly structure: number;
}

/**
 * How alike two pictures of one size look: the multi-scale structural similarity index (MS-SSIM) of their luma, 1 for
 * the same picture, towards 0 for pictures that have nothing in common. The finest scale is the size at which they
 * are shown; each next one is half as large. Small pictures have fewer scales, whose weights then are 1 together.
 *
 * Source: Z. Wang, E. P. Simoncelli, A. C. Bovik, "Multi-scale structural similarity for image quality assessment",
 * Asilomar Conference on Signals, Systems and Computers, 2003, equation 7; the index of a window as in Z. Wang et
 * al., "Image quality assessment: from error visibility to structural similarity", IEEE Transactions on Image
 * Processing 13(4), 2004, equation 13, with square windows of 8 × 8 pixels in place of the Gaussian ones.
 *
 * @throws RangeError when the pictures are not of one size.
 */
export function structuralSimilarity(one: Luma, other: Luma): number {
  if (one.width !== other.width || one.height !== other.height)
    throw new RangeError('only pictures of one size can be compared');
  const scales = Math.min(scaleWeights.length, 1 + halvingsOf(one));
  const weights = scaleWeights.slice(0, scales);
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  let [left, right] = [one, other];
  let product = 1;
  weights.forEach((weight, scale) => {
    if (scale > 0) [left, right] = [halved(left), halved(right)];
    const { whole, structure } = indicesOf(left, right);
    const index = scale === scales - 1 ? whole : structure;
    product *= Math.max(0, index) ** (weight / all);
  });
  return product;
}

function indicesOf(one: Luma, other: Luma): Indices {
  let whole = 0;
  let structures = 0;
  const windows = eachWindow(one, other, (meanX, meanY, squares, xy) => {
    const product = meanX * meanY;
    const means = meanX * meanX + meanY * meanY;
    const structure = (2 * (xy - product) + c2) / (squares - means + c2);
    structures += structure;
    whole += ((2 * product + c1) / (means + c1)) * structure;
  });
  return { whole: whole / windows, structure: structures / windows };
}
