import fc from 'fast-check';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { describe, expect, it } from 'vitest';
import { changePoints, leastMeasurements } from '../../../src/core/history/change-points.js';

/** Values around a level, scattered by up to so much of it to each side. */
function around(level: number, count: number, scatter: number, seed: number): number[] {
  const random = xoroshiro128plus(seed);
  return Array.from(
    { length: count },
    () => level * (1 + (uniformFloat64(random) * 2 - 1) * scatter),
  );
}

describe('change points', () => {
  it('are where the level changes, with both levels', () => {
    const values = [...around(1000, 12, 0.03, 1), ...around(1200, 9, 0.03, 2)];
    const [step, ...others] = changePoints(values);
    expect(others).toEqual([]);
    expect(step!.at).toBe(12);
    expect(step!.before).toBeCloseTo(1000, -2);
    expect(step!.after).toBeCloseTo(1200, -2);
    expect(step!.probability).toBeLessThan(0.03);
  });

  it('are found one after the other, in the order of time', () => {
    const values = [
      ...around(3000, 10, 0.02, 3),
      ...around(1000, 10, 0.02, 4),
      ...around(1500, 10, 0.02, 5),
    ];
    expect(changePoints(values).map(({ at }) => at)).toEqual([10, 20]);
  });

  it('are found in numbers that do not scatter at all', () => {
    const values = [...Array<number>(9).fill(500), ...Array<number>(4).fill(400)];
    expect(changePoints(values)).toMatchObject([{ at: 9, before: 500, after: 400 }]);
  });

  it('are never claimed of too few measurements, however clear they look', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1e6), { maxLength: leastMeasurements - 1 }), (values) => {
        expect(changePoints(values)).toEqual([]);
      }),
    );
    // Two of nine stand at one end by chance in every eighteenth series.
    expect(changePoints([...Array<number>(7).fill(1), 2, 2])).toEqual([]);
  });

  it('are none in what is always the same, in a single outlier, and in a change that nobody feels', () => {
    expect(changePoints(Array<number>(30).fill(7))).toEqual([]);
    expect(changePoints(Array<number>(30).fill(0))).toEqual([]);
    expect(changePoints([...around(100, 15, 0.02, 6), 300, ...around(100, 15, 0.02, 7)])).toEqual(
      [],
    );
    const hardly = [...Array<number>(20).fill(100_000), ...Array<number>(20).fill(100_200)];
    expect(changePoints(hardly)).toEqual([]);
  });

  it('are the same each time, and do not depend on the unit', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 1000 }), { minLength: 8, maxLength: 30 }),
        (values) => {
          const places = (list: readonly number[]) => changePoints(list).map(({ at }) => at);
          expect(places(values)).toEqual(places(values));
          expect(places(values.map((value) => value * 1024))).toEqual(places(values));
        },
      ),
      { numRuns: 30, seed: 8 },
    );
  });
});
