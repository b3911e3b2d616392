import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { modelOf } from '../../../src/core/load/load-model.js';
import type { LoadModel, ModelRequest } from '../../../src/core/load/load-model.js';
import { changedModel } from '../../../src/core/load/changed-model.js';
import { predictChange } from '../../../src/core/load/predict.js';
import { simulate } from '../../../src/core/load/simulate.js';
import { noMarkers } from '../../../src/core/load/markers.js';
import { pageRequest } from '../../support/page-request.js';

/** 100 ms of round trip, a byte a microsecond: 1,000 bytes a millisecond. */
const network = { latency: 100, down: 8_000 };

const asked = (more: Partial<ModelRequest> = {}): ModelRequest => ({
  ...{ url: 'http://bay.test/a', origin: 'http://bay.test', isMultiplexed: false },
  ...{ parent: 0, knownAt: 'first-byte' as const, lag: 0, handshakes: 1, thinking: 0 },
  ...{ bytes: 0, rank: 3, blocksRendering: false, isImage: false, isDocument: false },
  ...more,
});
const document = (more: Partial<ModelRequest> = {}) =>
  asked({ parent: null, isDocument: true, ...more });
const model = (...requests: ModelRequest[]): LoadModel => ({
  ...{ requests, network },
  markers: {
    firstContentfulPaint: null,
    largestContentfulPaint: null,
    domContentLoaded: null,
    load: { waitsFor: requests.map((_, at) => at), lag: 0 },
  },
});
const rounded = (values: readonly number[]) => values.map((value) => Math.round(value));

describe('a simulated load', () => {
  it('connects, asks, waits for the server and receives at the rate of the line', () => {
    const { firstBytes, ends, load } = simulate(model(document({ thinking: 50, bytes: 20_000 })));
    expect(rounded(firstBytes)).toEqual([250]);
    expect(rounded(ends)).toEqual([270]);
    expect(Math.round(load!)).toBe(270);
    // TLS costs another round trip.
    expect(rounded(simulate(model(document({ handshakes: 2 }))).ends)).toEqual([300]);
  });

  it('uses a connection again, and shares the line in equal parts', () => {
    const two = model(document(), asked({ bytes: 10_000 }), asked({ bytes: 30_000 }));
    // The first takes the connection of the document; the other opens one of its own.
    expect(rounded(simulate(two).firstBytes)).toEqual([200, 300, 400]);
    const together = model(
      document(),
      asked({ bytes: 10_000, thinking: 100 }),
      asked({ bytes: 30_000 }),
    );
    // Both begin at 400: 20 ms for the first 20,000 bytes of both, and 20 more for what is left.
    expect(rounded(simulate(together).ends)).toEqual([200, 420, 440]);
  });

  it('opens six connections to an origin over HTTP/1.1, and one over HTTP/2', () => {
    const files = Array.from({ length: 13 }, () => asked());
    const old = simulate(model(document(), ...files)).firstBytes.slice(1);
    expect(rounded(old).sort((a, b) => a - b)).toEqual([
      ...[300, 400, 400, 400, 400, 400, 400, 500, 500, 500, 500, 500, 500],
    ]);
    const many = files.map((file) => ({ ...file, isMultiplexed: true }));
    const fresh = simulate(model(document({ isMultiplexed: true }), ...many)).firstBytes.slice(1);
    expect(new Set(rounded(fresh))).toEqual(new Set([300]));
  });

  it('holds requests of low rank back while others block rendering', () => {
    const images = [1, 2, 3].map(() => asked({ rank: 1 }));
    const style = asked({ rank: 4, thinking: 500, blocksRendering: true });
    const { firstBytes } = simulate(model(document(), style, ...images));
    expect(rounded(firstBytes)).toEqual([200, 800, 400, 500, 600]);
  });

  it('asks for what a file names only when all of it is there', () => {
    const style = asked({ bytes: 40_000 });
    const font = asked({ parent: 1, knownAt: 'end', lag: 10 });
    expect(rounded(simulate(model(document(), style, font)).firstBytes)).toEqual([200, 300, 450]);
  });

  it('ends with every byte received, at no more than the rate of the line', () => {
    const request = fc.record({
      bytes: fc.integer({ min: 0, max: 1_000_000 }),
      thinking: fc.integer({ min: 0, max: 2_000 }),
      lag: fc.integer({ min: 0, max: 500 }),
      rank: fc.integer({ min: 0, max: 4 }),
      blocksRendering: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(request, { minLength: 1, maxLength: 30 }), (some) => {
        const { ends } = simulate(model(document(), ...some.map((one) => asked(one))));
        const bytes = some.reduce((sum, one) => sum + one.bytes, 0);
        expect(ends.every(Number.isFinite)).toBe(true);
        expect(Math.max(...ends)).toBeGreaterThanOrEqual(200 + bytes / 1_000 - 1e-3);
      }),
    );
  });
});

describe('a predicted change', () => {
  const run = {
    ...{ startedAt: '2026-11-27T00:00:00.000Z', finalUrl: 'http://bay.test/', status: 200 },
    failure: null,
    largest: { selector: 'img', url: 'http://bay.test/kite.jpg' },
    markers: {
      ...noMarkers(),
      ...{ firstContentfulPaint: 240, largestContentfulPaint: 1_350, load: 1_320 },
    },
    requests: [
      pageRequest('http://bay.test/', {
        type: 'html',
        phases: { connect: 100, wait: 100, receive: 1 },
      }),
      pageRequest('http://bay.test/kite.jpg', {
        ...{ start: 210, transferBytes: 1_000_000 },
        initiatedBy: { url: 'http://bay.test/', line: 1 },
        phases: { wait: 100, receive: 1_000 },
      }),
      pageRequest('http://count.test/late.gif', {
        ...{ start: 3_000, initiator: 'script' },
        phases: { connect: 100, wait: 200 },
      }),
    ],
  } as const;

  it('is that of the markers that waited for what changes', () => {
    const made = modelOf(run, network);
    const change = predictChange(made, new Map([['http://bay.test/kite.jpg', { bytes: 100_000 }]]));
    expect(Math.round(change.largestContentfulPaint!)).toBe(-900);
    expect(Math.round(change.load!)).toBe(-900);
    expect(Math.round(change.firstContentfulPaint!)).toBe(0);
  });

  it('lets the load wait for scripts that run, and not for what came while they ran', () => {
    const busy = 'http://bay.test/busy.js';
    const made = modelOf(
      {
        ...run,
        markers: { ...run.markers, domContentLoaded: 1_900, load: 1_905 },
        requests: [
          ...run.requests.slice(0, 2),
          pageRequest(busy, {
            ...{ type: 'script', start: 210, transferBytes: 100_000, renderBlocking: true },
            firstPriority: 'High',
            phases: { wait: 100, receive: 100 },
          }),
        ],
      },
      network,
    );
    // The script ends at 410, and runs until 1,900: a file that came before then brings nothing.
    const picture = new Map([['http://bay.test/kite.jpg', { bytes: 900_000 }]]);
    expect(Math.round(predictChange(made, picture).load!)).toBe(0);
    // As much sooner as the script comes.
    const script = predictChange(made, new Map([[busy, { bytes: 50_000 }]]));
    expect(Math.round(script.load!)).toBe(-50);
  });

  it('has no server take the time for which the line was busy with other responses', () => {
    const waited = (wait: number) =>
      pageRequest('http://bay.test/wind.jpg', {
        ...{ start: 210, transferBytes: 50_000, initiatedBy: { url: 'http://bay.test/', line: 2 } },
        phases: { wait, receive: 50 },
      });
    const thinking = (wait: number) =>
      modelOf({ ...run, requests: [...run.requests.slice(0, 2), waited(wait)] }, network)
        .requests[2]!.thinking;
    // The other picture is on the line from 310 to 1,310.
    expect(Math.round(thinking(100))).toBe(0);
    expect(Math.round(thinking(1_100))).toBe(0);
    expect(Math.round(thinking(1_300))).toBe(200);
  });

  it('paints a picture that comes while the page is laid out in a frame after the first', () => {
    const late = { picture: 1, lagInTime: 0, lagLate: 60 };
    const made = (bytes: number): LoadModel => ({
      ...model(document(), asked({ bytes, isImage: true }), asked({ blocksRendering: true })),
      markers: {
        ...{ domContentLoaded: null, load: null },
        firstContentfulPaint: { waitsFor: [2], lag: 200 },
        largestContentfulPaint: late,
      },
    });
    const paints = (bytes: number) => {
      const { firstContentfulPaint, largestContentfulPaint } = simulate(made(bytes));
      return rounded([firstContentfulPaint!, largestContentfulPaint!]);
    };
    // The style sheet comes at 400 on a connection of its own, the picture from 300 on.
    expect(paints(500_000)).toEqual([600, 860]);
    expect(paints(200_000)).toEqual([600, 660]);
    expect(paints(50_000)).toEqual([600, 600]);
  });

  it('is none where nothing waited for it, or nothing changes', () => {
    const made = modelOf(run, network);
    for (const changes of [
      new Map(),
      new Map([['http://count.test/late.gif', 'gone' as const]]),
      new Map([['http://elsewhere.test/', 'gone' as const]]),
    ])
      expect(predictChange(made, changes)).toEqual({
        ...{ firstContentfulPaint: 0, largestContentfulPaint: 0, load: 0 },
      });
  });

  it('takes a request away with all that depended on it', () => {
    const made = modelOf(run, network);
    const { load, largestContentfulPaint } = predictChange(
      made,
      new Map([['http://bay.test/kite.jpg', 'gone' as const]]),
    );
    expect(load).toBeLessThan(-1_000);
    expect(largestContentfulPaint).toBeLessThan(-1_000);
  });

  it('puts off what becomes lazy until the page is laid out, and lets the load wait for it', () => {
    const [style, image] = [
      asked({ url: 'http://bay.test/s.css', rank: 4, bytes: 50_000, blocksRendering: true }),
      asked({ url: 'http://bay.test/i.png', bytes: 400_000 }),
    ];
    const made = model(document(), style, image);
    const lazy = changedModel(made, new Map([[image.url, { isLazy: true }]]));
    const { ends, load } = simulate(lazy);
    // Alone on the line, the style sheet takes 50 ms; the image is asked for only then.
    expect(rounded(ends.slice(1))).toEqual([350, 850]);
    expect(Math.round(load!)).toBe(850);
  });

  it('lets a page be drawn before what is deferred, and asks at once for what is early', () => {
    const [script, image] = [
      asked({ url: 'http://bay.test/s.js', bytes: 300_000, blocksRendering: true }),
      asked({ url: 'http://bay.test/i.png', rank: 1, lag: 200, bytes: 10_000 }),
    ];
    const made = {
      ...model(document(), script, image),
      markers: {
        firstContentfulPaint: { waitsFor: [1], lag: 10 },
        largestContentfulPaint: null,
        domContentLoaded: null,
        load: { waitsFor: [0, 1, 2], lag: 0 },
      },
    };
    const deferred = simulate(changedModel(made, new Map([[script.url, { isDeferred: true }]])));
    expect(Math.round(deferred.firstContentfulPaint!)).toBe(210);
    expect(deferred.load).toBeCloseTo(simulate(made).load!, 0);
    const early = { rank: 3, isKnownAtOnce: true } as const;
    const { firstBytes } = simulate(changedModel(made, new Map([[image.url, early]])));
    expect(Math.round(firstBytes[2]!)).toBe(400);
    expect(Math.round(simulate(made).firstBytes[2]!)).toBe(600);
  });

  it('shares one connection where a host speaks HTTP/2', () => {
    const files = Array.from({ length: 12 }, (_, at) => asked({ url: `http://bay.test/${at}` }));
    const changes = new Map(files.map(({ url }) => [url, { isMultiplexed: true }] as const));
    const { firstBytes } = simulate(changedModel(model(document(), ...files), changes));
    expect(new Set(rounded(firstBytes.slice(1)))).toEqual(new Set([300]));
  });
});
