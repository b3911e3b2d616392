import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sizesText } from '../../../src/core/slots/sizes-text.js';
import { parseSizes } from '../../../src/core/slots/source-sizes.js';
import { slotWidthAt } from '../../../src/core/slots/slot-curve.js';
import type { CurvePiece } from '../../../src/core/slots/slot-curve.js';

describe('parseSizes', () => {
  it.each([
    ['100vw', 400, 400],
    ['(max-width: 600px) 100vw, 50vw', 600, 600],
    ['(max-width: 600px) 100vw, 50vw', 601, 300.5],
    ['(min-width: 40em) and (max-width: 900px) calc(50vw - 2rem), 320px', 800, 368],
    ['(min-width: 40em) and (max-width: 900px) calc(50vw - 2rem), 320px', 639, 320],
    ['(400px <= width < 700px) 10px, (width >= 1000px) 20px, 30px', 699, 10],
    ['(400px <= width < 700px) 10px, (width >= 1000px) 20px, 30px', 700, 30],
    ['(400px <= width < 700px) 10px, (width >= 1000px) 20px, 30px', 1000, 20],
    ['min(672px, 100vw - 32px)', 500, 468],
    ['clamp(100px, calc((100vw - 2 * 16px) / 3), 300px)', 632, 200],
    ['(max-width: 100px) 5px', 640, 640],
    ['-5px', 640, 0],
  ])('%s at %d px is %d px', (text, viewport, width) => {
    expect(parseSizes(text)!(viewport)).toBeCloseTo(width, 6);
  });

  it.each([
    'auto',
    '',
    'calc(((',
    '(orientation: portrait) 5px',
    '5cm',
    '1e999px',
    'x'.repeat(9e3),
  ])('does not pretend to read %j', (text) => {
    expect(parseSizes(text)).toBeUndefined();
  });
});

describe('sizesText', () => {
  it('says a curve as a person would', () => {
    const pieces = [
      { from: 320, to: 760, a: 1, b: -32 },
      { from: 761, to: 1120, a: 0.5, b: -24.000001 },
      { from: 1121, to: 2560, a: 0, b: 536 },
    ];
    expect(sizesText(pieces)).toBe(
      '(max-width: 760px) calc(100vw - 32px), (max-width: 1120px) calc(50vw - 24px), 536px',
    );
    expect(sizesText([{ from: 320, to: 2560, a: 0.33333, b: 0 }])).toBe('33.33vw');
  });

  it('is right to a pixel wherever the slot is shown', () => {
    const curve = fc
      .array(
        fc.record({
          length: fc.integer({ min: 1, max: 900 }),
          gap: fc.constantFrom(0, 0, 0, 40),
          a: fc.double({ min: -0.5, max: 1.5, noNaN: true }),
          b: fc.double({ min: 600, max: 900, noNaN: true }),
        }),
        { minLength: 1, maxLength: 6 },
      )
      .map((parts) => {
        const pieces: CurvePiece[] = [];
        let from = 320;
        for (const { length, gap, a, b } of parts) {
          pieces.push({ from, to: from + length, a: a / 3, b });
          from += length + 1 + gap;
        }
        return pieces;
      });
    fc.assert(
      fc.property(curve, (pieces) => {
        const said = parseSizes(sizesText(pieces))!;
        for (const { from, to } of pieces)
          for (const viewport of [from, Math.round((from + to) / 2), to])
            // The lines that are made up here may go below nothing; a slot does not.
            expect(
              Math.abs(said(viewport) - Math.max(0, slotWidthAt(pieces, viewport)!)),
            ).toBeLessThanOrEqual(0.5 + 1e-9);
      }),
    );
  });
});
