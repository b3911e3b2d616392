import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readHar } from '../../../src/core/load/har-reading.js';
import { phaseNames, requestTypes } from '../../../src/core/load/request.js';
import type { PageRequest, Phases } from '../../../src/core/load/request.js';
import { markerNames } from '../../../src/core/load/markers.js';
import { record } from '../../../src/core/base/record.js';
import type { Run, Session } from '../../../src/core/load/session.js';
import { harOf } from '../../../src/output/json/har.js';

const first = () => false;
const began = '2026-04-01T10:00:00.000Z';

const text = fc.string({ maxLength: 12 });
const headers = fc
  .array(fc.record({ name: fc.string({ minLength: 1, maxLength: 8 }), value: text }), {
    maxLength: 3,
  })
  .map((list) => list.filter(({ name }) => !/^(?:set-)?cookie$|authorization$/i.test(name)));
const span = fc.integer({ min: 0, max: 40_000 }).map((value) => value / 8);
const phases: fc.Arbitrary<Phases> = fc.record(record(phaseNames, () => span));
const request: fc.Arbitrary<PageRequest> = fc
  .record({
    url: fc.webUrl({ withQueryParameters: true }),
    method: fc.constantFrom('GET', 'POST'),
    type: fc.constantFrom(...requestTypes),
    status: fc.constantFrom(0, 200, 301, 404),
    statusText: text,
    mediaType: fc.constantFrom('', 'text/css', 'image/webp'),
    protocol: fc.constantFrom('http/1.1', 'h2', 'h3'),
    start: span,
    end: fc.boolean(),
    phases,
    transferBytes: fc.nat(),
    bodyBytes: fc.nat(),
    fromCache: fc.boolean(),
    priority: fc.constantFrom('Low', 'VeryHigh'),
    firstPriority: fc.constantFrom('Low', 'VeryHigh'),
    initiator: fc.constantFrom('parser', 'script', 'redirect', ''),
    initiatedBy: fc.constantFrom(
      null,
      { url: 'http://brindlebay.test/', line: 12 },
      { url: 'http://brindlebay.test/app.js', line: null },
    ),
    used: fc.constantFrom(null, true, false),
    thirdParty: fc.boolean(),
    renderBlocking: fc.boolean(),
    requestHeaders: headers,
    responseHeaders: headers,
    serverAddress: fc.constantFrom('', '192.0.2.7'),
    redirectsTo: fc.constantFrom('', 'http://brindlebay.test/there'),
    failure: fc.constantFrom(null, 'it was cut off'),
  })
  .map(({ end, ...rest }) => {
    const duration = phaseNames.reduce((sum, name) => sum + rest.phases[name], 0);
    return { ...rest, end: end ? rest.start + duration : null };
  });

function sessionOf(requests: readonly PageRequest[]): [Session, Run] {
  const run: Run = {
    startedAt: began,
    finalUrl: 'http://brindlebay.test/',
    status: 200,
    markers: { ...record(markerNames, () => null), load: 812.25, layoutShift: 0.014 },
    largest: { selector: '#hero', url: 'http://brindlebay.test/hero.jpg' },
    firstScreen: ['http://brindlebay.test/hero.jpg'],
    requests,
    failure: null,
  };
  const network = { name: 'dsl', latency: 45, down: 6000, up: 800 };
  const view = { name: 'phone', width: 390, height: 844, density: 3, touch: true };
  const session: Session = {
    id: 1,
    label: 'one',
    page: 'http://brindlebay.test/',
    startedAt: began,
    conditions: { network, cpuFactor: 2, view, browser: 'Chromium 1.2', cache: 'cold' },
    runs: [run],
  };
  return [session, run];
}

/** An entry as other programs write them. */
function entry(url: string, more: object = {}) {
  return {
    startedDateTime: began,
    time: 100,
    request: { method: 'GET', url },
    response: { status: 200, content: { size: 500, mimeType: 'image/png' }, bodySize: 400 },
    timings: { send: 10, wait: 40, receive: 50 },
    ...more,
  };
}

describe('a HAR file', () => {
  it('loses nothing between writing and reading', () => {
    fc.assert(
      fc.property(fc.array(request, { minLength: 1, maxLength: 8 }), (requests) => {
        const [session, run] = sessionOf(requests);
        const file: unknown = JSON.parse(
          JSON.stringify(harOf(session, run, { name: 'zealous-lynx', version: '1' })),
        );
        const { pages, defects } = readHar(file, first);
        expect(defects).toEqual([]);
        expect(pages).toHaveLength(1);
        expect(pages[0]!.page).toBe(session.page);
        expect(pages[0]!.conditions).toEqual(session.conditions);
        expect(pages[0]!.run.markers).toMatchObject({ load: 812.25, layoutShift: 0.014 });
        const { largest, firstScreen } = run;
        expect(pages[0]!.run).toMatchObject({ largest, firstScreen });
        const inOrder = [...requests].sort((a, b) => a.start - b.start);
        expect(pages[0]!.run.requests).toEqual(inOrder);
      }),
    );
  });

  it('is read where phases are missing, negative, or disagree with the time', () => {
    const { pages, defects } = readHar(
      {
        log: {
          entries: [
            entry('http://a.test/1', { timings: { dns: -1, ssl: 20, connect: 30, wait: 70 } }),
            entry('http://a.test/2', { timings: undefined }),
            entry('http://a.test/3', { time: -1 }),
            entry('http://a.test/4', { time: 130 }),
            entry('http://a.test/5', { time: 60 }),
            entry('http://a.test/6', { startedDateTime: 'soon', timings: { wait: '100' } }),
            entry(''),
          ],
        },
      },
      first,
    );
    const { requests } = pages[0]!.run;
    const told = (path: string) => requests.find(({ url }) => url.endsWith(path))!;
    expect(told('/1').phases).toMatchObject({ dns: 0, connect: 10, tls: 20, wait: 70 });
    expect(told('/2').phases).toMatchObject({ wait: 100, receive: 0 });
    expect(told('/3')).toMatchObject({ start: 0, end: 100 });
    expect(told('/4').phases.blocked).toBe(30);
    expect(told('/5').end).toBe(100);
    expect(told('/6')).toMatchObject({ start: 0, end: 100 });
    expect(requests).toHaveLength(6);
    expect(defects.map(({ words }) => words).sort()).toEqual([
      'no address: ignored',
      'no phases: the whole time is counted as wait',
      'no start time: set to that of the page',
      'no time: the sum of the phases is used',
      'time longer than the phases: the rest is counted as blocked',
      'time shorter than the phases: the phases are kept',
    ]);
    expect(told('/1')).toMatchObject({ type: 'image', transferBytes: 400, bodyBytes: 500 });
  });

  it('is read in the dialects of other programs', () => {
    const at = (milliseconds: number) => new Date(Date.parse(began) + milliseconds).toISOString();
    const { pages } = readHar(
      {
        log: {
          pages: [
            { id: 'p', title: 'Kites', startedDateTime: at(-20), pageTimings: { onLoad: 900 } },
            { id: 'q', title: 'http://b.test/', startedDateTime: at(-90_000_000) },
          ],
          entries: [
            entry('http://a.test/style', {
              pageref: 'p',
              startedDateTime: at(30),
              _resourceType: 'stylesheet',
              _priority: 'VeryHigh',
              _initiator: { type: 'parser', lineNumber: 3 },
              response: { status: 200, _transferSize: 77, content: {}, httpVersion: 'HTTP/2.0' },
            }),
            entry('http://a.test/', {
              pageref: 'p',
              response: {
                content: { size: 90, compression: 30, mimeType: 'text/html; charset=utf-8' },
                headers: [{ name: 'Set-Cookie', value: 'secret' }],
                headersSize: 12,
                bodySize: -1,
              },
            }),
            entry('http://b.test/', { pageref: 'q' }),
            entry('http://c.test/', { pageref: 'nowhere' }),
          ],
        },
      },
      (address) => !address.startsWith('http://a.test/'),
    );
    expect(pages.map(({ page }) => page)).toEqual(['http://a.test/', 'http://b.test/']);
    const [document, other, style] = pages[0]!.run.requests;
    expect(pages[0]!.run.markers).toMatchObject({ load: 900, ttfb: 70, interactive: null });
    expect(document).toMatchObject({ type: 'html', start: 20, transferBytes: 72 });
    expect(document!.responseHeaders).toEqual([{ name: 'Set-Cookie', value: '(redacted)' }]);
    expect(other).toMatchObject({ url: 'http://c.test/', thirdParty: true });
    expect(style).toMatchObject({
      type: 'style',
      start: 50,
      protocol: 'h2',
      priority: 'VeryHigh',
      initiator: 'parser',
      transferBytes: 77,
      thirdParty: false,
    });
    // A page that began a day before its first request did not.
    expect(pages[1]!.run.requests[0]!.start).toBe(0);
  });

  it('is refused in words when it is none, and never breaks on what is in it', () => {
    expect(() => readHar({}, first)).toThrow('it has no "log"');
    expect(() => readHar({ log: {} }, first)).toThrow('its "log" has no list of "entries"');
    fc.assert(
      fc.property(fc.array(fc.anything(), { maxLength: 5 }), fc.anything(), (entries, pages) => {
        const { pages: read } = readHar({ log: { entries, pages } }, first);
        for (const { run } of read)
          for (const { start, end } of run.requests) expect(end).toBeGreaterThanOrEqual(start);
      }),
    );
  });
});
