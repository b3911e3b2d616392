import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatBytes } from '../../../src/core/base/byte-words.js';

const factors: Readonly<Record<string, number>> = { B: 1, kB: 1e3, MB: 1e6, GB: 1e9 };

describe('bytes in words', () => {
  it.each([
    [0, '0 B'],
    [999, '999 B'],
    [999.6, '1.0 kB'],
    [7_349, '7.3 kB'],
    [9_960, '10 kB'],
    [999_499, '999 kB'],
    [999_500, '1.00 MB'],
    [1_078_605, '1.08 MB'],
    [-2_500_000, '-2.50 MB'],
    [1_999_999_999, '2.00 GB'],
  ])('%d is %s', (bytes, words) => {
    expect(formatBytes(bytes)).toBe(words);
  });

  it('are rounded, never cut off: within half of the last digit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2e12 }), (bytes) => {
        const [number = '', unit = ''] = formatBytes(bytes).split(' ');
        const digits = number.split('.')[1]?.length ?? 0;
        const factor = factors[unit]!;
        const half = (factor / 10 ** digits) * 0.5 * 1.000001;
        expect(Math.abs(Number(number) * factor - bytes)).toBeLessThanOrEqual(half + 1e-6);
      }),
    );
  });
});
