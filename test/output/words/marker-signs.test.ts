import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { noMarkers } from '../../../src/core/load/markers.js';
import { markerSigns } from '../../../src/output/words/marker-signs.js';

const time = fc.option(fc.integer({ min: 0, max: 3_000 }));
const markers = fc
  .record({
    firstContentfulPaint: time,
    largestContentfulPaint: time,
    domContentLoaded: time,
    load: time,
  })
  .map((known) => ({ ...noMarkers(), ...known }));

describe('the markers of a waterfall', () => {
  it('stand from left to right, with letters that do not overlap and lines at their times', () => {
    fc.assert(
      fc.property(markers, (some) => {
        const signs = markerSigns(some, (moment) => moment / 10);
        for (const [at, sign] of signs.entries()) {
          expect(sign.at).toBe(some[sign.name]! / 10);
          expect(sign.letterAt).toBeGreaterThanOrEqual(sign.at);
          const before = signs[at - 1];
          if (before) expect(sign.letterAt).toBeGreaterThanOrEqual(before.letterAt + 12);
        }
        const known = Object.values(some).filter((one) => one !== null);
        expect(signs).toHaveLength(known.length);
      }),
    );
  });

  it('have their letters above their lines where there is room', () => {
    const some = { ...noMarkers(), firstContentfulPaint: 600, load: 640, domContentLoaded: 595 };
    const signs = markerSigns(some, (moment) => moment);
    expect(signs.map(({ letter, letterAt }) => [letter, letterAt])).toEqual([
      ['D', 595],
      ['F', 607],
      ['E', 640],
    ]);
  });
});
