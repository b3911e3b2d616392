import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changesAgree } from '../../../src/core/load/agreement.js';

const change = fc
  .tuple(fc.integer({ min: -5_000, max: 5_000 }), fc.nat(500), fc.nat(500))
  .map(([difference, below, above]) => ({
    difference,
    interval: [difference - below, difference + above] as const,
  }));

describe('two measurements of one change', () => {
  it.each([
    ['each inside the other', [-850, -990, -660], [-900, -1_080, -800], true],
    ['both a little outside the other', [-824, -1_070, -603], [-990, -1_500, -826], true],
    [
      'farther apart than both together scatter',
      [-2_980, -3_110, -2_930],
      [-2_690, -2_920, -2_150],
      false,
    ],
    ['at most a tenth apart', [-950, -960, -940], [-1_000, -1_010, -990], true],
    ['in opposite directions', [-200, -250, -150], [200, 150, 250], false],
  ] as const)('that are %s', (_, one, other, agree) => {
    const [first, second] = [one, other].map(([difference, low, high]) => ({
      difference,
      interval: [low, high] as const,
    }));
    expect(changesAgree(first!, second!)).toBe(agree);
  });

  it('agree with themselves, and with none that was not measured', () => {
    fc.assert(
      fc.property(change, (one) => {
        expect(changesAgree(one, one)).toBe(true);
        expect(changesAgree(one, { difference: null, interval: null })).toBe(null);
      }),
    );
  });

  it('do not agree where the intervals have nothing in common and they are far apart', () => {
    fc.assert(
      fc.property(change, change, (one, other) => {
        fc.pre(one.interval[1] < other.interval[0] || other.interval[1] < one.interval[0]);
        const apart = Math.abs(one.difference - other.difference);
        expect(changesAgree(one, other)).toBe(apart <= 0.1 * Math.abs(other.difference));
      }),
    );
  });
});
