import type { Region } from '../base/region.js';
import type { Luma } from './luma.js';
import type { Size } from '../base/size.js';

/** Steps in which a window is moved, in pixels. */
const step = 8;

/**
 * The window of a size in which two pictures differ most: the one with the largest sum of squared differences. Where
 * nothing differs it is in the middle.
 *
 * @param window cut to the pictures where it is larger
 */
export function worstPlace(one: Luma, other: Luma, window: Size): Region {
  const width = Math.min(window.width, one.width);
  const height = Math.min(window.height, one.height);
  const sums = summedSquares(one, other);
  const across = one.width + 1;
  const sumOf = (left: number, top: number) =>
    sums[(top + height) * across + left + width]! -
    sums[top * across + left + width]! -
    sums[(top + height) * across + left]! +
    sums[top * across + left]!;
  const middle = {
    left: Math.floor((one.width - width) / 2),
    top: Math.floor((one.height - height) / 2),
  };
  let worst = { ...middle, sum: sumOf(middle.left, middle.top) };
  for (let top = 0; top <= one.height - height; top += step)
    for (let left = 0; left <= one.width - width; left += step) {
      const sum = sumOf(left, top);
      if (sum > worst.sum) worst = { left, top, sum };
    }
  return { left: worst.left, top: worst.top, width, height };
}

/** Sums of squared differences over all rectangles from the corner: any window's sum is four look-ups. */
function summedSquares({ width, height, values }: Luma, other: Luma): Float64Array {
  const across = width + 1;
  const sums = new Float64Array(across * (height + 1));
  for (let row = 0; row < height; row++) {
    let line = 0;
    for (let column = 0; column < width; column++) {
      const difference = values[row * width + column]! - other.values[row * width + column]!;
      line += difference * difference;
      const at = (row + 1) * across + column + 1;
      sums[at] = sums[at - across]! + line;
    }
  }
  return sums;
}
