import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { worstPlace } from '../../../src/core/pixels/worst-place.js';

const grey = (width: number, height: number) => ({
  ...{ width, height },
  values: new Uint8Array(width * height).fill(128),
});

describe('the place where two pictures differ most', () => {
  it('holds what was changed, wherever that is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 190 }),
        fc.integer({ min: 0, max: 140 }),
        (left, top) => {
          const one = grey(200, 150);
          const other = grey(200, 150);
          // A strong spot, and a weak one far away that must not win.
          for (let row = top; row < top + 8; row++)
            other.values.fill(200, row * 200 + left, row * 200 + left + 8);
          other.values[0] = 129;
          const found = worstPlace(one, other, { width: 40, height: 32 });
          expect(found).toMatchObject({ width: 40, height: 32 });
          expect(found.left + found.width).toBeLessThanOrEqual(200);
          expect(found.top + found.height).toBeLessThanOrEqual(150);
          expect(Math.max(found.left, left)).toBeLessThan(Math.min(found.left + 40, left + 8) + 0);
          expect(Math.max(found.top, top)).toBeLessThan(Math.min(found.top + 32, top + 8));
        },
      ),
    );
  });

  it('is in the middle of pictures that are the same, and no larger than they', () => {
    expect(worstPlace(grey(100, 60), grey(100, 60), { width: 40, height: 20 })).toEqual({
      ...{ left: 30, top: 20, width: 40, height: 20 },
    });
    expect(worstPlace(grey(10, 6), grey(10, 6), { width: 40, height: 20 })).toEqual({
      ...{ left: 0, top: 0, width: 10, height: 6 },
    });
  });
});
