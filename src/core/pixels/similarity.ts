import type { Size } from '../base/size.js';

/** The brightness of a picture, pixel by pixel. */
export interface Luma extends Size {
  /** 0 to 255, row by row; `width × height` values. */
  readonly values: Uint8Array;
}

/** Windows are 8 × 8 pixels and begin at every fourth pixel: four cells of 4 × 4 each. */
const cell = 4;

/** Stabilisers of the quotients, for values from 0 to 255 (K1 = 0.01, K2 = 0.03). */
const c1 = (0.01 * 255) ** 2;
const c2 = (0.03 * 255) ** 2;

/** The weight of each scale, the finest first; found by the authors in a test with people. */
const scaleWeights = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333] as const;

/** Sums over a piece of both pictures: x, y, xx + yy, xy. */
const sums = 4;

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
 * Processing 13(4), 2004, equation 13, with square windows of 8 × 8 pixels in place of the Gaussian ones. They are
 * summed up from cells, so that every pixel is looked at once; what is beyond the last whole cell is left out.
 *
 * @throws RangeError when the pictures are not of one size.
 */
export function similarity(one: Luma, other: Luma): number {
  if (one.width !== other.width || one.height !== other.height)
    throw new RangeError('only pictures of one size can be compared');
  const scales = Math.min(scaleWeights.length, scalesOf(one));
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

/** The number of scales: halvings that leave at least one window, and the full size. */
function scalesOf({ width, height }: Size): number {
  return Math.max(1, 1 + Math.floor(Math.log2(Math.min(width, height) / (2 * cell))));
}

/** The ideal is compared with one file after the other: it is halved once. */
const halves = new WeakMap<Luma, Luma>();

/** A picture of half the width and height, each pixel the average of four. */
function halved(whole: Luma): Luma {
  const known = halves.get(whole) ?? halvedAnew(whole);
  halves.set(whole, known);
  return known;
}

function halvedAnew({ width, height, values }: Luma): Luma {
  const [across, down] = [width >> 1, height >> 1];
  const half = new Uint8Array(across * down);
  for (let y = 0, to = 0; y < down; y++)
    for (let x = 0, from = 2 * y * width; x < across; x++, from += 2)
      half[to++] =
        (values[from]! +
          values[from + 1]! +
          values[from + width]! +
          values[from + width + 1]! +
          2) >>
        2;
  return { width: across, height: down, values: half };
}

function indicesOf(one: Luma, other: Luma): Indices {
  const across = Math.floor(one.width / cell);
  const down = Math.floor(one.height / cell);
  // Too small for a window: the whole picture is one.
  if (across < 2 || down < 2) return wholeIndices(one, other);
  const count = 4 * cell * cell;
  const pair = new Int32Array(across * sums);
  let whole = 0;
  let structures = 0;
  let above = cellRow(one, other, 0, across);
  for (let row = 1; row < down; row++) {
    const below = cellRow(one, other, row, across);
    for (let at = 0; at < pair.length; at++) pair[at] = above[at]! + below[at]!;
    // Written out here rather than called: this is where most of the time of a search for a quality goes.
    for (let at = 0; at + 2 * sums <= pair.length; at += sums) {
      const meanX = (pair[at]! + pair[at + sums]!) / count;
      const meanY = (pair[at + 1]! + pair[at + sums + 1]!) / count;
      const squares = (pair[at + 2]! + pair[at + sums + 2]!) / count;
      const xy = (pair[at + 3]! + pair[at + sums + 3]!) / count;
      const product = meanX * meanY;
      const means = meanX * meanX + meanY * meanY;
      const structure = (2 * (xy - product) + c2) / (squares - means + c2);
      structures += structure;
      whole += ((2 * product + c1) / (means + c1)) * structure;
    }
    above = below;
  }
  const windows = (across - 1) * (down - 1);
  return { whole: whole / windows, structure: structures / windows };
}

/** The sums of one row of cells, cell by cell. */
function cellRow(one: Luma, other: Luma, row: number, across: number): Int32Array {
  const found = new Int32Array(across * sums);
  const { values: lefts, width } = one;
  const { values: rights } = other;
  for (let line = row * cell; line < (row + 1) * cell; line++) {
    let at = line * width;
    for (let place = 0; place < found.length; place += sums) {
      let x = 0;
      let y = 0;
      let squares = 0;
      let xy = 0;
      for (const end = at + cell; at < end; at++) {
        const left = lefts[at]!;
        const right = rights[at]!;
        x += left;
        y += right;
        squares += left * left + right * right;
        xy += left * right;
      }
      found[place]! += x;
      found[place + 1]! += y;
      found[place + 2]! += squares;
      found[place + 3]! += xy;
    }
  }
  return found;
}

function wholeIndices({ values: lefts }: Luma, { values: rights }: Luma): Indices {
  let [x, y, squares, xy] = [0, 0, 0, 0];
  lefts.forEach((left, at) => {
    const right = rights[at]!;
    x += left;
    y += right;
    squares += left * left + right * right;
    xy += left * right;
  });
  const count = lefts.length;
  const [meanX, meanY] = [x / count, y / count];
  const product = meanX * meanY;
  const means = meanX * meanX + meanY * meanY;
  const structure = (2 * (xy / count - product) + c2) / (squares / count - means + c2);
  return { whole: ((2 * product + c1) / (means + c1)) * structure, structure };
}
