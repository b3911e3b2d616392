import type { Region } from '../base/region.js';
import { structuralSimilarity } from './structural-similarity.js';
import type { Luma } from './luma.js';
import type { Size } from '../base/size.js';

/** How similar a page looks before and after. */
export interface Looks {
  /** Of what both pictures have, 0 to 1. */
  readonly similarity: number;
  /** Part of the larger page that looks different, 0 to 1. */
  readonly changedShare: number;
  /** Part of the page that differs between equal loads and is not compared, 0 to 1. */
  readonly restlessShare: number;
  /** Where it does, the largest first; at most `maxRegions`. */
  readonly regions: readonly Region[];
  readonly before: Size;
  readonly after: Size;
  /** 1 for each tile that looks different, row by row. */
  readonly tiles: Tiles;
}

export interface Tiles {
  readonly across: number;
  readonly down: number;
  readonly changed: Uint8Array;
}

/** Sides of the tiles that pages are compared by, in CSS pixels. */
export const tileSide = 24;
/** A tile that is less alike than this looks different: grain and edges of a good encode stay above it. */
const tileThreshold = 0.8;
/** The average difference in brightness below which nothing is seen, whatever the structure, of 255. */
const unseen = 4;
const maxRegions = 5;

/**
 * Compares two pictures of a page: as a whole by their structural similarity, and tile by tile, to find where
 * they differ. A part that only one of them has counts as different.
 *
 * @param restless tiles that differ between equal loads of a page: they do not count
 */
export function compareLooks(before: Luma, after: Luma, restless: readonly Tiles[] = []): Looks {
  const common = {
    width: Math.min(before.width, after.width),
    height: Math.min(before.height, after.height),
  };
  const whole = { left: 0, top: 0, ...common };
  const across = Math.ceil(Math.max(before.width, after.width) / tileSide);
  const down = Math.ceil(Math.max(before.height, after.height) / tileSide);
  const changed = new Uint8Array(across * down);
  for (let row = 0, at = 0; row < down; row++)
    for (let column = 0; column < across; column++, at++) {
      const [left, top] = [column * tileSide, row * tileSide];
      const tile = {
        left,
        top,
        width: Math.min(tileSide, common.width - left),
        height: Math.min(tileSide, common.height - top),
      };
      const beyond = tile.width <= 0 || tile.height <= 0;
      const isNoise = restless.some((tiles) => isChanged(tiles, row, column));
      const isDifferent = beyond || differs(cut(before, tile), cut(after, tile));
      changed[at] = isDifferent && !isNoise ? 1 : 0;
    }
  const tiles = { across, down, changed };
  return {
    similarity: structuralSimilarity(cut(before, whole), cut(after, whole)),
    changedShare: changed.reduce((sum, one) => sum + one, 0) / Math.max(1, changed.length),
    regions: regionsOf(tiles),
    before: { width: before.width, height: before.height },
    after: { width: after.width, height: after.height },
    tiles,
    restlessShare: restlessShareOf(restless, tiles),
  };
}

function restlessShareOf(restless: readonly Tiles[], { across, down }: Tiles): number {
  let count = 0;
  for (let row = 0; row < down; row++)
    for (let column = 0; column < across; column++)
      if (restless.some((tiles) => isChanged(tiles, row, column))) count++;
  return count / Math.max(1, across * down);
}

function isChanged({ across, down, changed }: Tiles, row: number, column: number): boolean {
  return row < down && column < across && changed[row * across + column] === 1;
}

function differs(one: Luma, other: Luma): boolean {
  const total = one.values.reduce((sum, value, at) => sum + Math.abs(value - other.values[at]!), 0);
  if (total / one.values.length < unseen) return false;
  return structuralSimilarity(one, other) < tileThreshold;
}

function cut({ width, values }: Luma, { left, top, width: wide, height }: Region): Luma {
  const piece = new Uint8Array(wide * height);
  for (let row = 0; row < height; row++) {
    const from = (top + row) * width + left;
    piece.set(values.subarray(from, from + wide), row * wide);
  }
  return { width: wide, height, values: piece };
}

/** Boxes around tiles that differ and touch one another, the largest first. */
function regionsOf({ across, down, changed }: Tiles): Region[] {
  const seen = new Uint8Array(changed.length);
  const found: Region[] = [];
  changed.forEach((one, start) => {
    if (!one || seen[start]) return;
    let [left, top, right, bottom] = [across, down, 0, 0];
    const open = [start];
    seen[start] = 1;
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      const [column, row] = [at % across, Math.floor(at / across)];
      left = Math.min(left, column);
      right = Math.max(right, column + 1);
      top = Math.min(top, row);
      bottom = Math.max(bottom, row + 1);
      for (const [beside, inside] of [
        [at - 1, column > 0],
        [at + 1, column < across - 1],
        [at - across, row > 0],
        [at + across, row < down - 1],
      ] as const)
        if (inside && changed[beside] && !seen[beside]) {
          seen[beside] = 1;
          open.push(beside);
        }
    }
    found.push({
      left: left * tileSide,
      top: top * tileSide,
      width: (right - left) * tileSide,
      height: (bottom - top) * tileSide,
    });
  });
  return found.sort((a, b) => b.width * b.height - a.width * a.height).slice(0, maxRegions);
}
