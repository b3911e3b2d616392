import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fixCurve, fixesFor } from '../../../src/core/report/fix-curve.js';

describe('what the first fixes bring', () => {
  it('is cumulated from the largest saving on, without those that save nothing', () => {
    const curve = fixCurve([10, 0, 60, 30, -5]);
    expect(curve.saved).toEqual([0, 60, 90, 100]);
    expect(fixesFor(curve, 0.8)).toBe(2);
    expect(fixesFor(curve, 1)).toBe(3);
    expect(fixesFor(fixCurve([]), 0.8)).toBe(0);
  });

  it('rises less and less, and ends with the sum', () => {
    const savings = fc.array(fc.float({ min: 0, max: 1e6, noNaN: true }), { maxLength: 60 });
    fc.assert(
      fc.property(savings, fc.float({ min: 0, max: 1, noNaN: true }), (bytes, share) => {
        const curve = fixCurve(bytes);
        const sum = bytes.reduce((all, one) => all + one, 0);
        expect(curve.saved.at(-1)!).toBeCloseTo(sum, 3);
        const steps = curve.saved.slice(1).map((saved, at) => saved - curve.saved[at]!);
        for (const [at, step] of steps.slice(1).entries())
          expect(step).toBeLessThanOrEqual(steps[at]! * (1 + 1e-9) + 1e-9);
        const needed = fixesFor(curve, share);
        expect(needed).toBeGreaterThanOrEqual(0);
        expect(curve.saved[needed]!).toBeGreaterThanOrEqual(sum * share * (1 - 1e-6));
      }),
    );
  });
});
