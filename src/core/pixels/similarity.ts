import { colourShift, damageOf } from './damage.js';
import type { Colours } from './colours.js';
import { halved } from './luma.js';
import { structuralSimilarity } from './structural-similarity.js';

/** What a unit of each kind of damage weighs beside the logarithm of the structural similarity. */
const weights = { worst: 0.4, shift: 0.03, red: 0.025, blue: 0.01 } as const;

/**
 * How alike an encoded picture looks to the picture that it was made of, at the size in which it is shown: 1 for the same
 * picture, towards 0 for pictures that have nothing in common.
 *
 *     similarity = MS-SSIM × exp(−(0.4 worst + 0.03 shift + 0.025 red + 0.01 blue))
 *
 * The structural similarity of the luma sees the loss of detail, but it is an average over the whole picture, and blind to
 * colour. The rest is local: the worst windows and the shift of brightness at half the size (`damageOf`), and the shift of
 * colour along both axes of Y'CbCr (`colourShift`). The weights were chosen with photographs and two other measures;
 * docs/model.md has the results.
 *
 * @throws RangeError when the pictures are not of one size.
 */
export function similarity(ideal: Colours, encoded: Colours): number {
  const structure = structuralSimilarity(ideal.luma, encoded.luma);
  const { worst, shift } = damageOf(halved(ideal.luma), halved(encoded.luma));
  const damage =
    weights.worst * worst +
    weights.shift * shift +
    weights.red * colourShift(ideal.red, encoded.red) +
    weights.blue * colourShift(ideal.blue, encoded.blue);
  return structure * Math.exp(-damage);
}
