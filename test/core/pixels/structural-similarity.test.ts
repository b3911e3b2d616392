import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { structuralSimilarity } from '../../../src/core/pixels/structural-similarity.js';
import type { Luma } from '../../../src/core/pixels/luma.js';

function luma(width: number, height: number, valueAt: (x: number, y: number) => number): Luma {
  const values = Uint8Array.from({ length: width * height }, (_, at) =>
    valueAt(at % width, Math.floor(at / width)),
  );
  return { width, height, values };
}

/** Shapes of several sizes, the same every time. */
const shapes = (x: number, y: number) =>
  128 + 60 * Math.sin(x / 3) * Math.cos(y / 5) + 40 * Math.sin((x + y) / 31);
const noise = (x: number, y: number) => ((x * 7919 + y * 104_729) % 97) - 48;

describe('structural similarity', () => {
  it('is 1 for the same picture, of any size', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 90 }),
        fc.integer({ min: 1, max: 90 }),
        (width, height) => {
          const one = luma(width, height, shapes);
          expect(structuralSimilarity(one, one)).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('falls as the damage grows, and is the same either way round', () => {
    const plain = luma(256, 192, shapes);
    const damaged = [0.05, 0.2, 0.5, 1].map((part) =>
      luma(256, 192, (x, y) => shapes(x, y) + part * noise(x, y)),
    );
    const found = damaged.map((one) => structuralSimilarity(plain, one));
    expect(found).toEqual(found.toSorted((a, b) => b - a));
    expect(found[0]).toBeGreaterThan(0.99);
    expect(found[3]).toBeLessThan(0.95);
    expect(structuralSimilarity(damaged[2]!, plain)).toBeCloseTo(found[2]!, 12);
  });

  it('minds the loss of structure more than another brightness', () => {
    const plain = luma(256, 192, shapes);
    const brighter = luma(256, 192, (x, y) => shapes(x, y) + 12);
    const blurred = luma(256, 192, (x, y) => 128 + 40 * Math.sin((x + y) / 31));
    expect(structuralSimilarity(plain, brighter)).toBeGreaterThan(0.99);
    expect(structuralSimilarity(plain, blurred)).toBeLessThan(0.8);
  });

  it('is the index of one window for a picture that has no more', () => {
    // Means 100 and 110, no variance: the luminance term alone, by hand.
    const [one, other] = [luma(8, 8, () => 100), luma(8, 8, () => 110)];
    const c1 = 6.5025;
    expect(structuralSimilarity(one, other)).toBeCloseTo(
      (2 * 100 * 110 + c1) / (100 ** 2 + 110 ** 2 + c1),
      9,
    );
  });

  it('refuses pictures of different sizes', () => {
    expect(() => structuralSimilarity(luma(8, 8, shapes), luma(8, 9, shapes))).toThrow(RangeError);
  });
});
