import type { Luma } from './luma.js';
import { eachWindow } from './windows.js';

/** Steadies the quotient where a picture is smooth, for values from 0 to 255 (K2 = 0.03). */
const c2 = (0.03 * 255) ** 2;

/** What windows have lost of their contrast and structure, 0 for nothing. */
export interface StructureLoss {
  /** Of an average window. */
  readonly mean: number;
  /** The 4-norm, in which the worst windows weigh more. */
  readonly worst: number;
}

/**
 * What is lost of the structure of a picture at one scale, in windows of 8 × 8 pixels, one every 4: 1 minus the likeness of
 * contrast and structure (Z. Wang et al., "Image quality assessment: from error visibility to structural similarity", IEEE
 * Transactions on Image Processing 13(4), 2004, equation 13 without its luminance), pooled by the mean and by the 4-norm as
 * in SSIMULACRA 2 (J. Sneyers, 2022).
 */
export function structureLossOf(ideal: Luma, encoded: Luma): StructureLoss {
  let sum = 0;
  let fourths = 0;
  const windows = eachWindow(ideal, encoded, (meanX, meanY, squares, xy) => {
    const covariance = xy - meanX * meanY;
    const variances = squares - meanX * meanX - meanY * meanY;
    const loss = Math.max(0, 1 - (2 * covariance + c2) / (variances + c2));
    const squared = loss * loss;
    sum += loss;
    fourths += squared * squared;
  });
  return { mean: sum / windows, worst: (fourths / windows) ** (1 / 4) };
}
