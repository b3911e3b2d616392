import { describe, expect, it } from 'vitest';
import { record } from '../../../src/core/base/record.js';
import { changeOf } from '../../../src/core/load/comparison.js';
import { markerNames } from '../../../src/core/load/markers.js';
import type { MarkerName } from '../../../src/core/load/markers.js';
import { serverShift } from '../../../src/core/load/server-shift.js';

const runs = (middle: number) => [-4, -2, 0, 1, 3].map((noise) => middle + noise);

/** Markers before and after; those that are left out did not move. */
function markersOf(moved: Partial<Record<MarkerName, readonly [number, number]>>) {
  return record(markerNames, (name) => {
    const [before, after] = moved[name] ?? [500, 500];
    return changeOf(runs(before), runs(after));
  });
}

describe('a change of the server', () => {
  it('is told with the markers that moved by as much', () => {
    const shift = serverShift(
      markersOf({
        ttfb: [100, 400],
        firstPaint: [300, 605],
        largestContentfulPaint: [900, 1_190],
        load: [2_000, 3_500],
      }),
    );
    expect(shift).toEqual({ difference: 300, moved: ['firstPaint', 'largestContentfulPaint'] });
  });

  it('is none where the runs do not show it, and claims no marker that went the other way', () => {
    expect(serverShift(markersOf({ ttfb: [100, 101], firstPaint: [300, 900] }))).toBeNull();
    expect(serverShift(markersOf({ ttfb: [400, 100], firstPaint: [300, 600] }))).toEqual({
      difference: -300,
      moved: [],
    });
  });
});
