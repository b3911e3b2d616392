import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { disagreements } from '../../../src/core/history/disagreements.js';
import { percentileOf } from '../../../src/core/history/field.js';
import { seriesOfField, seriesOfSessions } from '../../../src/core/history/series.js';
import { noMarkers } from '../../../src/core/load/markers.js';
import { unshaped } from '../../../src/core/visitors/network.js';
import { defaultViews } from '../../../src/core/visitors/view.js';

const page = 'http://brindlebay.test/';

describe('the 75th percentile of a histogram', () => {
  it('lies where three quarters of the visits are below', () => {
    const bins = [
      { from: 0, to: 1000, count: 50 },
      { from: 1000, to: 2000, count: 50 },
    ];
    expect(percentileOf(bins)).toBe(1500);
    expect(percentileOf([{ from: 0, to: 100, count: 4 }])).toBe(75);
  });

  it('lies within the classes that hold any visits', () => {
    const bin = fc.record({ width: fc.integer({ min: 1, max: 900 }), count: fc.nat(50) });
    fc.assert(
      fc.property(fc.array(bin, { minLength: 1, maxLength: 8 }), (parts) => {
        let from = 0;
        const bins = parts.map(({ width, count }) => ({ from, to: (from += width), count }));
        const held = bins.filter(({ count }) => count > 0);
        if (held.length === 0) return;
        const value = percentileOf(bins);
        expect(value).toBeGreaterThanOrEqual(held[0]!.from);
        expect(value).toBeLessThanOrEqual(held.at(-1)!.to);
      }),
    );
  });
});

const conditions = {
  ...{ network: unshaped, cpuFactor: 1, view: defaultViews[0]!, cache: 'cold' as const },
  browser: 'Chromium 1',
} as const;

function session(day: string, load: number, id: number) {
  const markers = { ...noMarkers(), load };
  return {
    ...{ id, label: `clock-${id}`, page, startedAt: `${day}T06:00:00.000Z`, conditions },
    runs: [{ markers, failure: null }],
  };
}

const visitors = (day: string, value: number) => ({
  ...{ date: `${day}T00:00:00.000Z`, page, group: null, marker: 'load', value, count: 100 },
  marker: 'load' as const,
});

describe('visitors and clock', () => {
  const clocked = seriesOfSessions(
    [session('2026-11-01', 1000, 1), session('2026-11-08', 1020, 2)],
    ['load'],
  );

  it('disagree where one moved and the other did not', () => {
    const field = seriesOfField([visitors('2026-11-01', 2000), visitors('2026-11-08', 3000)]);
    expect(disagreements(field, clocked)).toMatchObject([
      { page, field: { before: 2000, after: 3000 }, clock: { before: 1000, after: 1020 } },
    ]);
  });

  it('agree where both moved alike, and say nothing of days that only one of them has', () => {
    const alike = seriesOfField([visitors('2026-11-01', 2000), visitors('2026-11-08', 2100)]);
    expect(disagreements(alike, clocked)).toEqual([]);
    const later = seriesOfField([visitors('2026-12-01', 2000), visitors('2026-12-08', 9000)]);
    expect(disagreements(later, clocked)).toEqual([]);
  });
});
