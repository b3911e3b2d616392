import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { narrower } from '../../../../src/core/refit/plan/refit-widths.js';

describe('widths that are worth a file', () => {
  it('are those that are not nearly as wide as another', () => {
    expect(narrower([270, 390, 700, 716], 716, 716)).toEqual([270, 390]);
    expect(narrower([650, 640, 300], 716, 716)).toEqual([640, 300].sort((a, b) => a - b));
  });

  it('have the widest among them where it is not made anyway', () => {
    expect(narrower([672, 716, 300], 716, 500)).toEqual([300, 716]);
    expect(narrower([], 716, 672)).toEqual([716]);
  });

  it('serve every wish with no more than a ninth too many pixels across', () => {
    const width = fc.integer({ min: 1, max: 3_000 });
    fc.assert(
      fc.property(fc.array(width), width, (wanted, made) => {
        const most = Math.max(made, ...wanted);
        const chosen = narrower(wanted, most, made);
        expect(chosen).toEqual([...new Set(chosen)].sort((a, b) => a - b));
        const offered = [...chosen, made].sort((a, b) => a - b);
        for (const one of wanted) {
          const served = offered.find((offer) => offer >= one)!;
          expect(served * 0.9).toBeLessThanOrEqual(one);
        }
      }),
    );
  });
});
