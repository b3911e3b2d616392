import { describe, expect, it } from 'vitest';
import { compareLooks, tileSide } from '../../../src/core/pixels/looks.js';
import type { Luma } from '../../../src/core/pixels/luma.js';

/** A page with a texture, of which a box may be covered by another one. */
function page(
  width: number,
  height: number,
  cover?: { left: number; top: number; width: number; height: number },
): Luma {
  const values = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++, at++) {
      const inside =
        cover &&
        x >= cover.left &&
        x < cover.left + cover.width &&
        y >= cover.top &&
        y < cover.top + cover.height;
      values[at] = inside ? 128 + 100 * Math.sin(y / 3) : 128 + 100 * Math.sin((x + y) / 5);
    }
  return { width, height, values };
}

describe('compareLooks', () => {
  it('finds nothing between a page and itself', () => {
    const looks = compareLooks(page(360, 720), page(360, 720));
    expect(looks).toMatchObject({ similarity: 1, changedShare: 0, regions: [] });
  });

  it('says where pages differ, and how much of them', () => {
    const cover = { left: 5 * tileSide, top: 10 * tileSide, width: 4 * tileSide, height: 48 };
    const other = { left: 0, top: 0, width: tileSide, height: tileSide };
    const changed = page(360, 720, cover);
    const corner = page(360, 720, other);
    for (let y = 0; y < tileSide; y++)
      for (let x = 0; x < tileSide; x++) changed.values[y * 360 + x] = corner.values[y * 360 + x]!;
    const looks = compareLooks(page(360, 720), changed);
    expect(looks.regions).toEqual([cover, other]);
    expect(looks.changedShare).toBeCloseTo((4 * 2 + 1) / (15 * 30), 10);
    expect(looks.similarity).toBeLessThan(0.99);
  });

  it('does not see grain', () => {
    const grainy = page(240, 240);
    grainy.values.forEach((value, at) => (grainy.values[at] = value + (at % 3) - 1));
    expect(compareLooks(page(240, 240), grainy).changedShare).toBe(0);
  });

  it('counts what only one of the pages has as different', () => {
    const looks = compareLooks(page(240, 240), page(240, 480));
    expect(looks.changedShare).toBe(0.5);
    expect(looks.similarity).toBe(1);
    expect(looks.regions).toEqual([{ left: 0, top: 240, width: 240, height: 240 }]);
    expect(looks.before).toEqual({ width: 240, height: 240 });
  });

  it('leaves out what differs between two equal loads', () => {
    const box = { left: 0, top: 0, width: 4 * tileSide, height: 2 * tileSide };
    const moved = { ...box, left: 6 * tileSide };
    const plain = page(240, 240);
    const restless = compareLooks(plain, page(240, 240, box)).tiles;
    const looks = compareLooks(plain, page(240, 240, box), [restless]);
    expect(looks).toMatchObject({ changedShare: 0, regions: [], restlessShare: 8 / 100 });
    expect(compareLooks(plain, page(240, 240, moved), [restless]).regions).toEqual([moved]);
  });
});
