import type { BlockMeans } from './colours.js';
import type { Luma } from './luma.js';
import { eachWindow } from './windows.js';

/** What an average over the whole picture hides. */
export interface Damage {
  /** The squared error of windows, less where a window is busy; the worst windows weigh most. */
  readonly worst: number;
  /** The squared difference of the mean brightness of windows. */
  readonly shift: number;
}

/** Steadies the quotient of error and activity, as in the structural similarity (K2 = 0.03). */
const steady = (0.03 * 255) ** 2;
/** How much error the activity of a window hides: per standard deviation of its brightness. */
const masking = 8;

/** Differences of means up to half a step of 255 are rounding, which flat areas have everywhere and nobody sees. */
const rounding = 0.5;

function fourthPower(difference: number): number {
  const beyond = Math.max(0, Math.abs(difference) - rounding);
  const squared = beyond * beyond;
  return squared * squared;
}

/**
 * Local damage between two pictures of one size: windows of 8 × 8 pixels, one every 4. The error of each is its mean squared
 * difference, divided by a threshold that rises with the standard deviation of what was there (contrast masking); the errors
 * are pooled by their 8-norm. The differences of the means are pooled by their 4-norm, and squared.
 *
 * Source: pooling by norms that let the worst places weigh in as in Z. Wang, X. Shang, "Spatial pooling strategies for
 * perceptual image quality assessment", IEEE International Conference on Image Processing, 2006; differences of means
 * without a denominator as in SSIMULACRA 2 (J. Sneyers, 2022).
 */
export function damageOf(ideal: Luma, encoded: Luma): Damage {
  let worst = 0;
  let shift = 0;
  const windows = eachWindow(ideal, encoded, (meanX, meanY, squares, xy) => {
    const error = Math.max(0, squares - 2 * xy);
    // What both have in common hides an error, not what the error itself adds.
    const activity = Math.sqrt(Math.max(0, xy - meanX * meanY));
    const masked = error / (steady + masking * activity);
    const fourth = masked * masked * masked * masked;
    worst += fourth * fourth;
    shift += fourthPower(meanX - meanY);
  });
  if (windows === 0) return { worst: 0, shift: 0 };
  return { worst: (worst / windows) ** (1 / 8), shift: Math.sqrt(shift / windows) };
}

/**
 * The squared difference of the mean colour of windows of 2 × 2 blocks, one every block, along one axis of colour; pooled by
 * the 4-norm.
 */
export function colourShift(
  { across, down, values }: BlockMeans,
  { values: others }: BlockMeans,
): number {
  if (across === 0 || down === 0) return 0;
  const [wide, high] = [Math.max(1, across - 1), Math.max(1, down - 1)];
  const right = across > 1 ? 1 : 0;
  const below = down > 1 ? across : 0;
  let sum = 0;
  for (let row = 0; row < high; row++)
    for (let column = 0; column < wide; column++) {
      const at = row * across + column;
      const apart =
        (values[at]! -
          others[at]! +
          values[at + right]! -
          others[at + right]! +
          values[at + below]! -
          others[at + below]! +
          values[at + below + right]! -
          others[at + below + right]!) /
        4;
      sum += fourthPower(apart);
    }
  return Math.sqrt(sum / (wide * high));
}
