import { describe, expect, it } from 'vitest';
import { sizesError } from '../../../src/core/slots/sizes-error.js';
import { cappedSizesText, sizesText } from '../../../src/core/slots/sizes-text.js';
import { parseSizes } from '../../../src/core/slots/source-sizes.js';

const srcset = 'a-300.jpg 300w, a-900.jpg 900w';
const curve = [
  { from: 320, to: 760, a: 1, b: -32 },
  { from: 761, to: 2_560, a: 0, b: 400 },
];

describe('what is wrong with sizes', () => {
  it('is the width at which it is farthest from the slot', () => {
    expect(sizesError({ srcset, sizes: null }, curve)).toEqual({
      ...{ declared: 2_560, slot: 400, viewport: 2_560 },
    });
    expect(sizesError({ srcset, sizes: '(max-width: 760px) 100vw, 400px' }, curve)).toBeUndefined();
  });

  it('is nothing where no width is chosen, or the browser measures itself', () => {
    expect(sizesError({ srcset: 'a.jpg 2x', sizes: null }, curve)).toBeUndefined();
    expect(sizesError({ srcset, sizes: 'auto, 100vw' }, curve)).toBeUndefined();
  });

  it('is nothing for the text that is proposed, capped or not', () => {
    for (const sizes of [sizesText(curve), cappedSizesText(curve, 2)])
      expect(sizesError({ srcset, sizes }, curve)).toBeUndefined();
  });
});

describe('sizes that spare dense phones', () => {
  const sizes = parseSizes(cappedSizesText(curve, 2))!;

  it('name two thirds of the slot for them, and all of it for the others', () => {
    expect(Math.abs(sizes(390, 3) * 3 - (390 - 32) * 2)).toBeLessThan(2);
    expect(sizes(390, 2)).toBeCloseTo(390 - 32, 0);
    expect(sizes(1_366, 3)).toBeCloseTo(400, 0);
  });

  it('are the plain ones if all pixels are to be served', () => {
    expect(cappedSizesText(curve, 3)).toBe(sizesText(curve));
  });
});
