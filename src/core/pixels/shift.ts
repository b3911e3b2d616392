import type { BlockMeans } from './colours.js';
import { fourthPower } from './fourth-power.js';
import type { Windows } from './windows.js';

/** Differences of means up to half a step of 255 are rounding, which flat areas have everywhere and nobody sees. */
const rounding = 0.5;

function fourthBeyond(difference: number): number {
  return fourthPower(Math.max(0, Math.abs(difference) - rounding));
}

/**
 * The squared difference of the mean lightness of windows, pooled by the 4-norm.
 *
 * Source: differences of means without a denominator as in SSIMULACRA 2 (J. Sneyers, 2022).
 */
export function lightnessShift({ differences }: Windows): number {
  let shift = 0;
  for (const difference of differences) shift += fourthBeyond(difference);
  return Math.sqrt(shift / differences.length);
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
      sum += fourthBeyond(apart);
    }
  return Math.sqrt(sum / (wide * high));
}
