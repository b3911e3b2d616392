import { describe, expect, it } from 'vitest';
import { noMarkers } from '../../../src/core/load/markers.js';
import { changeOf, compareSessions } from '../../../src/core/load/comparison.js';
import { differingConditions } from '../../../src/core/visitors/conditions.js';
import type { Conditions } from '../../../src/core/visitors/conditions.js';
import { builtInNetworks, unshaped } from '../../../src/core/visitors/network.js';
import type { PageRequest } from '../../../src/core/load/request.js';
import { medianRun, summariseSession } from '../../../src/core/load/session.js';
import type { Run, Session } from '../../../src/core/load/session.js';
import { pageRequest } from '../../support/page-request.js';
import { summarise } from '../../../src/core/base/summary.js';

const conditions: Conditions = {
  network: unshaped,
  cpuFactor: 1,
  view: { name: 'phone', width: 390, height: 844, density: 3, touch: true },
  browser: 'Chromium 1',
  cache: 'cold',
};

function request(type: PageRequest['type'], transferBytes: number): PageRequest {
  return pageRequest('http://a.test/', { type, transferBytes, phases: { wait: 10 } });
}

function run(load: number, images: readonly number[], failure: string | null = null): Run {
  return {
    startedAt: '2026-01-01T00:00:00.000Z',
    finalUrl: 'http://a.test/',
    status: 200,
    markers: {
      ...noMarkers(),
      ttfb: load / 10,
      firstContentfulPaint: load / 2,
      largestContentfulPaint: load,
      domContentLoaded: load / 2,
      load,
      interactive: null,
      blockingTime: 0,
      layoutShift: 0,
      quiet: load + 500,
    },
    requests: [request('html', 1000), ...images.map((bytes) => request('image', bytes))],
    failure,
  };
}

function session(runs: readonly Run[], changed: Partial<Conditions> = {}): Session {
  return {
    id: 1,
    label: 'one',
    page: 'http://a.test/',
    startedAt: '2026-01-01T00:00:00.000Z',
    conditions: { ...conditions, ...changed },
    runs,
  };
}

describe('summarise', () => {
  it('has the median, the range and the count of what is there', () => {
    expect(summarise([5, null, 1, 3])).toEqual({ median: 3, min: 1, max: 5, count: 3 });
    expect(summarise([1, 2])).toMatchObject({ median: 1.5 });
    expect(summarise([null])).toBeNull();
  });
});

describe('summariseSession', () => {
  it('takes medians over the runs that count', () => {
    const summary = summariseSession(
      session([
        run(100, [10, 20]),
        run(300, [10, 20, 30]),
        run(200, [10]),
        run(9999, [], 'failed'),
      ]),
    );
    expect(summary.markers.load).toEqual({ median: 200, min: 100, max: 300, count: 3 });
    expect(summary.markers.interactive).toBeNull();
    expect(summary.requestsByType.image.median).toBe(2);
    expect(summary.bytesByType.image).toMatchObject({ median: 30, min: 10, max: 60 });
    expect(summary.bytes.median).toBe(1030);
    expect(summary).toMatchObject({ countedRuns: 3, failedRuns: 1 });
  });

  it('refuses a session of which no run counts', () => {
    expect(() => summariseSession(session([run(1, [], 'failed')]))).toThrow(RangeError);
  });
});

describe('medianRun', () => {
  it('is the counted run whose load is nearest to the median', () => {
    const runs = [run(100, []), run(205, []), run(900, []), run(201, [], 'failed'), run(210, [])];
    expect(medianRun(session(runs)).markers.load).toBe(205);
  });
});

describe('compareSessions', () => {
  it('sets medians against each other, absolute and in per cent', () => {
    const { markers, bytes, requestCount, requestsByType } = compareSessions(
      session([run(400, [1000])]),
      session([run(100, [200, 300])]),
    );
    expect(markers.load).toMatchObject({ difference: -300, percent: -75 });
    expect(markers.interactive).toMatchObject({ difference: null, percent: null });
    expect(bytes).toMatchObject({ difference: -500, percent: -25 });
    expect(requestCount).toMatchObject({ difference: 1, percent: 50 });
    expect(requestsByType.image).toMatchObject({ difference: 1, percent: 100 });
  });

  it('says what the runs show, and leaves open what they do not', () => {
    const before = [1000, 1010, 1020, 1030, 1040];
    expect(changeOf(before, [500, 510, 520, 530, 540])).toMatchObject({
      verdict: 'less',
      runsToSettle: null,
    });
    expect(changeOf([5, 6, 5, 6], [60, 70, 60, 70])).toMatchObject({ verdict: 'more' });
    expect(changeOf(before, [990, 1005, 1022, 1031, 1039, null])).toMatchObject({
      verdict: 'open',
    });
    expect(changeOf([7, 7], [7, 7, 7])).toMatchObject({ verdict: 'same' });
    expect(changeOf([7, 7], [8, 8, 8])).toMatchObject({ verdict: null, interval: null });
    expect(changeOf([null], [8])).toMatchObject({ before: null, verdict: null });
  });

  it('has no per cent of nothing', () => {
    expect(changeOf([0], [5])).toMatchObject({ difference: 5, percent: null });
  });

  it('names every condition that differs', () => {
    const other = { ...conditions, cpuFactor: 4, network: builtInNetworks[0]! };
    const names = differingConditions(conditions, other).map(({ condition }) => condition);
    expect(names).toEqual(['network', 'CPU']);
    expect(differingConditions(conditions, structuredClone(conditions))).toEqual([]);
  });
});
