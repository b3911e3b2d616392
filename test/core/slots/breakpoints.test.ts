import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { breakpointsIn, joined, widthsIn } from '../../../src/core/slots/breakpoints.js';

describe('the breakpoints of a style sheet', () => {
  it.each([
    ['(max-width: 40em)', [640]],
    ['screen and (min-width:601px) and (max-width:900.5px)', [601, 900.5]],
    ['(400px <= width < 50rem)', [400, 800]],
    ['(min-height: 500px)', []],
    ['(min-resolution: 2dppx)', []],
    ['(min-width: 0) and (max-width: 99999px)', []],
  ])('are the widths that its conditions name: %s', (condition, widths) => {
    expect(widthsIn(condition)).toEqual(widths);
    expect(breakpointsIn(`p{top:7px}@MEDIA ${condition}{p{left:8px}}`)).toEqual({
      widths,
      whole: true,
    });
  });

  it('are not all where it imports others, or asks for the width of containers', () => {
    expect(breakpointsIn('@import "other.css";@media(width>9px){}')).toEqual({
      widths: [9],
      whole: false,
    });
    expect(breakpointsIn('@container (width > 400px){}').whole).toBe(false);
    expect(breakpointsIn('a::before{content:"@containers"}').whole).toBe(true);
  });

  it('of several are those of each, once', () => {
    const widths = fc.uniqueArray(fc.integer({ min: 1, max: 9_999 }));
    fc.assert(
      fc.property(fc.array(fc.record({ widths, whole: fc.boolean() })), (all) => {
        const both = joined(all);
        expect(new Set(both.widths)).toEqual(new Set(all.flatMap((one) => one.widths)));
        expect(new Set(both.widths).size).toBe(both.widths.length);
        expect(both.whole).toBe(!all.some(({ whole }) => !whole));
      }),
    );
  });

  it('are read of any text in time', () => {
    for (const text of ['@media'.repeat(200_000), `@media (${'width'.repeat(200_000)}`])
      expect(breakpointsIn(text)).toEqual({ widths: [], whole: true });
  });
});
