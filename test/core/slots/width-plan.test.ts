import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bytesWith, planWidths } from '../../../src/core/slots/width-plan.js';
import type { Demand } from '../../../src/core/slots/width-plan.js';

const demand = (width: number, weight: number, exponent = 1.6): Demand => ({
  width,
  bytesAt: (wide) => weight * (wide / 100) ** exponent,
});

/** Every set of at most `most` demanded widths with the largest in it, tried one after the other. */
function cheapest(demands: readonly Demand[], most: number): number {
  const widths = [...new Set(demands.map(({ width }) => width))].sort((a, b) => a - b);
  const last = widths.at(-1)!;
  let best = Infinity;
  for (let set = 0; set < 2 ** (widths.length - 1); set++) {
    const chosen = [...widths.slice(0, -1).filter((_, at) => set & (1 << at)), last];
    if (chosen.length <= most) best = Math.min(best, bytesWith(demands, chosen));
  }
  return best;
}

describe('planWidths', () => {
  it('is as good as the best of all sets of widths', () => {
    const any = fc.record({
      width: fc.integer({ min: 50, max: 2_000 }),
      weight: fc.double({ min: 0.001, max: 10, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(any, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 1, max: 6 }),
        (sketches, most) => {
          const demands = sketches.map(({ width, weight }) => demand(width, weight));
          const { widths, bytes } = planWidths(demands, most);
          expect(widths.length).toBeLessThanOrEqual(most);
          expect(widths).toEqual(widths.toSorted((a, b) => a - b));
          expect(bytes).toBeCloseTo(bytesWith(demands, widths), 6);
          expect(bytes).toBeCloseTo(cheapest(demands, most), 6);
        },
      ),
    );
  });

  it('puts a width where the many are, not in even steps', () => {
    const demands = [demand(100, 1), demand(380, 60), demand(400, 60), demand(1_000, 1)];
    expect(planWidths(demands, 2).widths).toEqual([400, 1_000]);
    expect(planWidths(demands, 1).widths).toEqual([1_000]);
    expect(planWidths(demands, 9).widths).toEqual([100, 380, 400, 1_000]);
  });

  it('does with fewer files where another one would save next to nothing', () => {
    const demands = [demand(100, 5), demand(396, 1), demand(400, 1)];
    expect(planWidths(demands, 5).widths).toEqual([100, 396, 400]);
    expect(planWidths(demands, 5, 0.01).widths).toEqual([100, 400]);
  });

  it('plans for thousands of different widths', () => {
    const demands = Array.from({ length: 5_000 }, (_, at) => demand(100 + at / 2, 1));
    const { widths, bytes } = planWidths(demands, 5);
    expect(widths).toHaveLength(5);
    expect(widths.at(-1)).toBe(100 + 4_999 / 2);
    const even = [1, 2, 3, 4, 5].map((step) => 100 + (step * 2_499.5) / 5);
    expect(bytes).toBeLessThan(bytesWith(demands, even));
  });

  it('has nothing to say of no demands', () => {
    expect(planWidths([], 5)).toEqual({ widths: [], bytes: 0 });
  });
});
