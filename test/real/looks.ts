import { structuralSimilarity } from '../../src/core/pixels/structural-similarity.js';
import type { Luma } from '../../src/core/pixels/luma.js';

/** Rows that are compared together. */
const band = 100;

/**
 * How alike two pictures of a page are where each band of one may lie a pixel higher or lower in the other: candidates of
 * other widths round the ratio of a picture otherwise, and what is below it moves by a part of a pixel.
 *
 * @returns 0 to 1, the average of all bands
 */
export function likeness(one: Luma, other: Luma): number {
  const height = Math.min(one.height, other.height);
  const bands: number[] = [];
  for (let top = 1; top + band < height; top += band) {
    const own = rowsOf(one, top);
    const found = [-1, 0, 1].map((shift) => structuralSimilarity(own, rowsOf(other, top + shift)));
    bands.push(Math.max(...found));
  }
  return bands.reduce((sum, likest) => sum + likest, 0) / bands.length;
}

function rowsOf({ width, values }: Luma, top: number): Luma {
  return { width, height: band, values: values.subarray(top * width, (top + band) * width) };
}
