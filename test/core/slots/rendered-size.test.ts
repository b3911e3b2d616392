import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { renderedSize } from '../../../src/core/slots/rendered-size.js';
import type { ObjectFit } from '../../../src/core/slots/rendered-size.js';

const intrinsic = { width: 400, height: 200 };
const slot = { width: 100, height: 100 };

describe('renderedSize', () => {
  it.each<[ObjectFit, number, number]>([
    ['fill', 100, 100],
    ['contain', 100, 50],
    ['cover', 200, 100],
    ['none', 400, 200],
    ['scale-down', 100, 50],
  ])('draws a 400×200 file in a 100×100 slot with %s as %d×%d', (fit, width, height) => {
    expect(renderedSize({ slot, fit }, intrinsic)).toEqual({ width, height });
  });

  it('leaves a small file small where it may only be scaled down', () => {
    expect(renderedSize({ slot, fit: 'scale-down' }, { width: 40, height: 20 })).toEqual({
      width: 40,
      height: 20,
    });
  });

  it('fills the slot when the file has no pixels', () => {
    expect(renderedSize({ slot, fit: 'cover' }, undefined)).toEqual(slot);
  });

  it.each([
    [
      { width: 80, height: null },
      { width: 80, height: 40 },
    ],
    [
      { width: null, height: 80 },
      { width: 160, height: 80 },
    ],
    [
      { width: 30, height: 90 },
      { width: 30, height: 90 },
    ],
    [
      { width: null, height: null },
      { width: 200, height: 100 },
    ],
  ])('draws a background of %j in its own ratio where a side is open', (drawn, size) => {
    expect(renderedSize({ slot, fit: 'none', drawn, naturalDensity: 2 }, intrinsic)).toEqual(size);
  });

  it('keeps the ratio, covers, and is contained, whatever the sizes', () => {
    const side = fc.double({ min: 1, max: 5000, noNaN: true });
    const size = fc.record({ width: side, height: side });
    fc.assert(
      fc.property(size, size, (box, file) => {
        const ratio = file.width / file.height;
        const cover = renderedSize({ slot: box, fit: 'cover' }, file);
        const contain = renderedSize({ slot: box, fit: 'contain' }, file);
        expect(cover.width / cover.height).toBeCloseTo(ratio, 5);
        expect(contain.width / contain.height).toBeCloseTo(ratio, 5);
        expect(cover.width).toBeGreaterThanOrEqual(box.width * (1 - 1e-9));
        expect(cover.height).toBeGreaterThanOrEqual(box.height * (1 - 1e-9));
        expect(contain.width).toBeLessThanOrEqual(box.width * (1 + 1e-9));
        expect(contain.height).toBeLessThanOrEqual(box.height * (1 + 1e-9));
      }),
    );
  });
});
