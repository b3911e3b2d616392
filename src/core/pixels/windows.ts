import type { Size } from '../base/size.js';
import type { Luma } from './luma.js';

/** Windows are 8 × 8 pixels and begin at every fourth pixel: four cells of 4 × 4 each. */
const cell = 4;

/** Sums over a piece of both pictures: x, y, xx + yy, xy. */
const sums = 4;

/** Told of each window: the means of both pictures, the mean of xx + yy, and that of xy. */
type TakeWindow = (meanX: number, meanY: number, squares: number, xy: number) => void;

/** What the windows of two pictures of one size hold, row by row. */
export interface Windows {
  readonly across: number;
  readonly down: number;
  /** Of the means: what the second has more. */
  readonly differences: Float64Array;
  /** The variances of both together. */
  readonly variances: Float64Array;
  readonly covariances: Float64Array;
}

/** Sums up two pictures once, for all that is asked of their windows. */
export function windowsOf(one: Luma, other: Luma): Windows {
  const [across, down] = isOneWindow(one)
    ? [1, 1]
    : [Math.floor(one.width / cell) - 1, Math.floor(one.height / cell) - 1];
  const count = across * down;
  const differences = new Float64Array(count);
  const variances = new Float64Array(count);
  const covariances = new Float64Array(count);
  let at = 0;
  eachWindow(one, other, (meanX, meanY, squares, xy) => {
    differences[at] = meanY - meanX;
    variances[at] = squares - meanX * meanX - meanY * meanY;
    covariances[at] = xy - meanX * meanY;
    at++;
  });
  return { across, down, differences, variances, covariances };
}

/**
 * Goes through the windows of two pictures of one size. They are summed up from cells, so that every pixel is looked at
 * once; what is beyond the last whole cell is left out. A picture that is too small for a window is one.
 *
 * @returns the number of windows
 */
export function eachWindow(one: Luma, other: Luma, take: TakeWindow): number {
  if (isOneWindow(one)) return wholeWindow(one, other, take);
  const across = Math.floor(one.width / cell);
  const down = Math.floor(one.height / cell);
  const count = 4 * cell * cell;
  const pair = new Int32Array(across * sums);
  let above = cellRow(one, other, 0, across);
  for (let row = 1; row < down; row++) {
    const below = cellRow(one, other, row, across);
    for (let at = 0; at < pair.length; at++) pair[at] = above[at]! + below[at]!;
    for (let at = 0; at + 2 * sums <= pair.length; at += sums)
      take(
        (pair[at]! + pair[at + sums]!) / count,
        (pair[at + 1]! + pair[at + sums + 1]!) / count,
        (pair[at + 2]! + pair[at + sums + 2]!) / count,
        (pair[at + 3]! + pair[at + sums + 3]!) / count,
      );
    above = below;
  }
  return (across - 1) * (down - 1);
}

function isOneWindow({ width, height }: Size): boolean {
  return Math.min(width, height) < 2 * cell;
}

function wholeWindow({ values: lefts }: Luma, { values: rights }: Luma, take: TakeWindow): number {
  let [x, y, squares, xy] = [0, 0, 0, 0];
  lefts.forEach((left, at) => {
    const right = rights[at]!;
    x += left;
    y += right;
    squares += left * left + right * right;
    xy += left * right;
  });
  const count = Math.max(1, lefts.length);
  take(x / count, y / count, squares / count, xy / count);
  return 1;
}

/** The number of halvings of a picture that leave at least one window. */
export function halvingsOf({ width, height }: Size): number {
  return Math.max(0, Math.floor(Math.log2(Math.min(width, height) / (2 * cell))));
}

/** The sums of one row of cells, cell by cell. The four pixels of a line are written out, which takes three fifths of the time. */
function cellRow(one: Luma, other: Luma, row: number, across: number): Int32Array {
  const found = new Int32Array(across * sums);
  const { values: lefts, width } = one;
  const { values: rights } = other;
  for (
    let place = 0, from = row * cell * width;
    place < found.length;
    place += sums, from += cell
  ) {
    let x = 0;
    let y = 0;
    let squares = 0;
    let xy = 0;
    for (let at = from; at < from + cell * width; at += width) {
      const a = lefts[at]!;
      const b = lefts[at + 1]!;
      const c = lefts[at + 2]!;
      const d = lefts[at + 3]!;
      const p = rights[at]!;
      const q = rights[at + 1]!;
      const r = rights[at + 2]!;
      const s = rights[at + 3]!;
      x += a + b + c + d;
      y += p + q + r + s;
      squares += a * a + b * b + c * c + d * d + p * p + q * q + r * r + s * s;
      xy += a * p + b * q + c * r + d * s;
    }
    found[place] = x;
    found[place + 1] = y;
    found[place + 2] = squares;
    found[place + 3] = xy;
  }
  return found;
}
