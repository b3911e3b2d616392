import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { curveTolerance, fitSlotCurve, slotWidthAt } from '../../../src/core/slots/slot-curve.js';
import { widthsToRefine } from '../../../src/core/slots/widths-to-refine.js';
import type { CurvePiece, CurveSample } from '../../../src/core/slots/slot-curve.js';

/** Samples of a curve that is known, at the given widths. */
function sampled(
  widths: readonly number[],
  widthAt: (viewport: number) => number | null,
): CurveSample[] {
  return widths.map((viewport) => ({ viewport, width: widthAt(viewport) }));
}

const all = Array.from({ length: 2241 }, (_, index) => 320 + index);

/** How far a fitted curve is from what was measured, at the worst. */
function worst(pieces: readonly CurvePiece[], samples: readonly CurveSample[]): number {
  return Math.max(
    0,
    ...samples.map(({ viewport, width }) => {
      const fitted = slotWidthAt(pieces, viewport);
      if (width === null || fitted === null) return width === fitted ? 0 : Infinity;
      return Math.abs(width - fitted);
    }),
  );
}

describe('fitSlotCurve', () => {
  it('finds a layout as its author wrote it', () => {
    // A column of at most 1120 px with 24 px of padding; under 760 px, 16 px; in thirds above.
    const layout = (viewport: number) =>
      viewport <= 760 ? viewport - 32 : (Math.min(viewport, 1120) - 48) / 2 - 12;
    expect(fitSlotCurve(sampled(all, layout))).toEqual([
      { from: 320, to: 760, a: 1, b: -32 },
      { from: 761, to: 1120, a: 0.5, b: -36 },
      { from: 1121, to: 2560, a: 0, b: 524 },
    ]);
  });

  it('covers no width at which the slot is not shown', () => {
    const pieces = fitSlotCurve(sampled(all, (viewport) => (viewport < 900 ? null : 200)));
    expect(pieces).toEqual([{ from: 900, to: 2560, a: 0, b: 200 }]);
    expect(slotWidthAt(pieces, 899)).toBeNull();
    expect(fitSlotCurve(sampled([320, 400], () => null))).toEqual([]);
  });

  it('outlasts the rounding of a browser', () => {
    const rounded = (viewport: number) => Math.round((viewport / 3 - 20) * 64) / 64;
    expect(fitSlotCurve(sampled(all, rounded))).toHaveLength(1);
  });

  it('is right to half a pixel, with no more pieces than the layout has', () => {
    const piece = fc.record({
      length: fc.integer({ min: 20, max: 500 }),
      a: fc.constantFrom(0, 1, 0.5, 1 / 3, 0.25, 0.9),
      b: fc.integer({ min: -200, max: 900 }),
    });
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), (layout) => {
        const samples: CurveSample[] = [];
        let viewport = 320;
        for (const { length, a, b } of layout)
          for (let step = 0; step < length; step += 7)
            samples.push({ viewport: (viewport += 7), width: a * viewport + b });
        const pieces = fitSlotCurve(samples);
        expect(worst(pieces, samples)).toBeLessThanOrEqual(curveTolerance + 1e-9);
        expect(pieces.length).toBeLessThanOrEqual(layout.length);
      }),
    );
  });
});

describe('widthsToRefine', () => {
  /** Measures where it is told to until nothing is left to measure. */
  function refined(layout: (viewport: number) => number | null): CurveSample[] {
    const widths = new Set(Array.from({ length: 36 }, (_, index) => 320 + index * 64));
    for (let round = 0; round < 12; round++) {
      const samples = sampled(
        [...widths].sort((a, b) => a - b),
        layout,
      );
      const more = widthsToRefine(samples);
      if (more.length === 0) return samples;
      for (const width of more) widths.add(width);
    }
    throw new Error('it never came to an end');
  }

  it('finds a breakpoint that no style sheet tells, to the pixel', () => {
    const layout = (viewport: number) => (viewport < 777 ? viewport - 40 : viewport / 2);
    const samples = refined(layout);
    expect(samples.length).toBeLessThan(70);
    const pieces = fitSlotCurve(samples);
    expect(pieces.map(({ from, to }) => [from, to])).toEqual([
      [320, 776],
      [777, 2560],
    ]);
    expect(worst(pieces, sampled(all, layout))).toBeLessThanOrEqual(curveTolerance);
  });

  it('finds a bend where two lines meet, at once', () => {
    const layout = (viewport: number) => Math.min(viewport - 24, 1003.5);
    const samples = refined(layout);
    expect(samples.length).toBeLessThanOrEqual(42);
    expect(worst(fitSlotCurve(samples), sampled(all, layout))).toBeLessThanOrEqual(curveTolerance);
  });

  it('ends a piece where the next one begins, though neither was measured there', () => {
    const layout = (viewport: number) => Math.min(0.28 * viewport + 129, 384);
    const pieces = fitSlotCurve(refined(layout));
    expect(pieces.map(({ from, to }) => [from, to])).toEqual([
      [320, 910],
      [911, 2560],
    ]);
    expect(worst(pieces, sampled(all, layout))).toBeLessThanOrEqual(curveTolerance);
  });

  it('ends it there, too, where the next one was first measured just before', () => {
    // A third of the window, of pixels in 64 parts, and at most 640 px: measured where it reaches them, and not beside it.
    const layout = (viewport: number) => Math.min(Math.floor((viewport * 64) / 3) / 64, 640);
    const widths = [1792, 1856, 1888, 1920, 1921, 1952, 1984, 2048];
    const pieces = fitSlotCurve(sampled(widths, layout));
    const between = all.filter((width) => width >= 1792 && width <= 2048);
    expect(worst(pieces, sampled(between, layout))).toBeLessThanOrEqual(curveTolerance);
  });

  it('looks no further around a jump that was measured on both sides', () => {
    const layout = (viewport: number) => (viewport < 992 ? 250 : 336);
    const widths = [864, 928, 991, 992, 993, 1056, 1120];
    expect(widthsToRefine(sampled(widths, layout))).toEqual([]);
  });

  it('finds where a slot appears, and asks for nothing on a straight line', () => {
    const pieces = fitSlotCurve(refined((viewport) => (viewport < 1000 ? null : 300)));
    expect(pieces[0]).toMatchObject({ from: 1000, a: 0, b: 300 });
    expect(widthsToRefine(sampled([320, 640, 1280, 2560], (viewport) => viewport * 0.8))).toEqual(
      [],
    );
  });
});
