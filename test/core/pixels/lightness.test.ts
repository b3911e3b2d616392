import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lightnessOf } from '../../../src/core/pixels/lightness.js';

const byte = fc.integer({ min: 0, max: 255 });

describe('lightnessOf', () => {
  it('has the lightness of known colours of sRGB, white at 255', () => {
    // L* of CIE 1976 under D65, from the definition of sRGB.
    const known = [
      [[0, 0, 0], 0],
      [[255, 255, 255], 100],
      [[119, 119, 119], 50.03],
      [[255, 0, 0], 53.24],
      [[0, 255, 0], 87.73],
      [[0, 0, 255], 32.3],
      [[10, 10, 10], 2.74],
    ] as const;
    for (const [[red, green, blue], lightness] of known) {
      const found = lightnessOf(red, green, blue);
      expect(Math.abs(found - 2.55 * lightness)).toBeLessThan(0.6);
    }
  });

  it('never falls as a colour gets more light', () => {
    fc.assert(
      fc.property(byte, byte, byte, byte, (red, green, blue, more) => {
        const before = lightnessOf(red, green, blue);
        expect(lightnessOf(Math.max(red, more), green, blue)).toBeGreaterThanOrEqual(before);
        expect(lightnessOf(red, Math.max(green, more), blue)).toBeGreaterThanOrEqual(before);
        expect(lightnessOf(red, green, Math.max(blue, more))).toBeGreaterThanOrEqual(before);
      }),
    );
  });

  it('tells every grey from the next one but one', () => {
    for (let grey = 0; grey < 254; grey++)
      expect(lightnessOf(grey + 2, grey + 2, grey + 2)).toBeGreaterThan(
        lightnessOf(grey, grey, grey),
      );
  });
});
