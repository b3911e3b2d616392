import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { describe, expect, it } from 'vitest';
import { medianDifference } from '../../../src/core/load/bootstrap.js';

/** Loads as they scatter: never quicker than they can be, and now and then much slower. */
function loads(seed: number) {
  const random = xoroshiro128plus(seed);
  return (count: number, typical: number) =>
    Array.from({ length: count }, () => {
      const late = -Math.log(1 - uniformFloat64(random));
      const stalled = uniformFloat64(random) < 0.08 ? 400 : 0;
      return typical + 40 * late + stalled;
    });
}

describe('medianDifference', () => {
  it.each([3, 4, 5, 7, 12])(
    'rarely shows a difference between a page and itself, with %i runs',
    (runs) => {
      const draw = loads(7);
      const comparisons = 120;
      const claims = Array.from({ length: comparisons }, () =>
        medianDifference(draw(runs, 900), draw(runs, 900)),
      ).filter(({ shown }) => shown);
      expect(claims.length / comparisons).toBeLessThanOrEqual(0.05);
    },
  );

  it('holds the true difference in 95 of 100 intervals, or a little more', () => {
    const draw = loads(11);
    const comparisons = 120;
    const held = Array.from({ length: comparisons }, () =>
      medianDifference(draw(8, 900), draw(8, 800)),
    ).filter(({ interval }) => interval![0] <= -100 && interval![1] >= -100);
    expect(held.length / comparisons).toBeGreaterThanOrEqual(0.93);
  });

  it('shows a difference that stands out, and says so every time', () => {
    const before = [1210, 1190, 1250, 1204, 1600, 1222, 1201];
    const after = [811, 790, 850, 804, 830, 1100, 801];
    const one = medianDifference(before, after);
    expect(one.shown).toBe(true);
    expect(one.runsToSettle).toBeNull();
    expect(one.interval![1]).toBeLessThan(0);
    expect(medianDifference(before, after)).toEqual(one);
    const turned = medianDifference(after, before);
    expect(turned.difference).toBe(-one.difference);
    expect(turned.shown).toBe(true);
  });

  it('says how many more runs would settle what these leave open', () => {
    const one = medianDifference([100, 110, 120, 130, 140], [92, 102, 112, 122, 132]);
    expect(one).toMatchObject({ difference: -8, shown: false });
    expect(one.runsToSettle).toBeGreaterThan(15);
    const wide = medianDifference([100, 110, 120, 130, 140], [80, 98, 102, 125, 131]);
    expect(wide.runsToSettle).toBeGreaterThan(5);
    expect(wide.runsToSettle).toBeLessThan(one.runsToSettle!);
  });

  it('claims no interval of fewer than three runs, and shows nothing with three', () => {
    expect(medianDifference([1, 2], [8, 9, 10])).toMatchObject({ interval: null, shown: false });
    expect(medianDifference([1, 2, 3], [8, 9, 10])).toMatchObject({ shown: false });
    expect(medianDifference([1, 1, 1, 1], [1, 1, 1, 1])).toEqual({
      difference: 0,
      interval: [0, 0],
      shown: false,
      runsToSettle: null,
    });
    expect(() => medianDifference([], [1])).toThrow(RangeError);
  });
});
