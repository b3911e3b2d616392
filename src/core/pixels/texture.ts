import type { Windows } from './windows.js';

/** The variance of lightness (of 255, both pictures together) at which a window counts as half textured: 1 in each of them. */
const halfway = 2;

/** Less than this is not told apart: where nearly all is smooth, it is what is smooth that is damaged. */
const least = 0.5;

/**
 * The part of a picture that is not smooth, at least a half. Where most of it is a clear sky, damage gathers in the rest: an average
 * over all of it would be the smaller the more sky there is, and the damage as visible as before.
 *
 * Source: windows weighed by what they hold, as in Z. Wang and Q. Li, "Information content weighting for perceptual image quality
 * assessment", IEEE Transactions on Image Processing 20(5), 2011.
 */
export function texturedPart({ variances }: Windows): number {
  let textured = 0;
  for (const variance of variances) {
    const within = Math.max(0, variance);
    textured += within / (within + halfway);
  }
  return Math.max(least, textured / variances.length);
}
