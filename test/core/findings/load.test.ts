import { describe, expect, it } from 'vitest';
import { loadFindingsOf } from '../../../src/core/findings/load/index.js';
import { usableAt } from '../../../src/core/load/usable.js';
import { findingWords } from '../../../src/output/words/findings.js';
import { noMarkers } from '../../../src/core/load/markers.js';
import type { Markers } from '../../../src/core/load/markers.js';
import type { PageRequest, Phases } from '../../../src/core/load/request.js';
import type { Run } from '../../../src/core/load/session.js';
import { pageRequest } from '../../support/page-request.js';

const site = 'http://brindlebay.test';
const dsl = { name: 'dsl', latency: 45, down: 6000, up: 800 };

function request(
  path: string,
  start: number,
  phases: Partial<Phases>,
  more: Partial<Omit<PageRequest, 'phases'>> = {},
): PageRequest {
  const type = path.endsWith('.jpg') ? 'image' : path.endsWith('.css') ? 'style' : 'html';
  return pageRequest(path.startsWith('/') ? site + path : path, { type, start, phases, ...more });
}

function load(
  requests: readonly PageRequest[],
  { markers = {}, ...more }: Partial<Omit<Run, 'markers'>> & { markers?: Partial<Markers> } = {},
): Run {
  return {
    startedAt: '2026-04-01T10:00:00.000Z',
    finalUrl: `${site}/`,
    status: 200,
    markers: { ...noMarkers(), ...markers },
    requests: [request('/', 0, { wait: 60, receive: 40 }), ...requests],
    failure: null,
    ...more,
  };
}

const found = (run: Run, id: string, needed?: (url: string) => number | undefined) =>
  loadFindingsOf(run, dsl, needed).filter((finding) => finding.id === id);

describe('what stands out in a load', () => {
  it('is nothing where there is nothing', () => {
    const run = load([request('/a.jpg', 110, { wait: 50, receive: 20 })]);
    expect(loadFindingsOf(run, dsl)).toEqual([]);
  });

  it('is an image that is long on its way, with what it would save at its need', () => {
    const run = load([request('/a.jpg', 110, { receive: 800 }, { transferBytes: 400_000 })]);
    expect(found(run, 'heavy-image')).toMatchObject([{ cost: null, url: `${site}/a.jpg` }]);
    const [finding] = found(run, 'heavy-image', () => 100_000);
    expect(finding).toMatchObject({ cost: 600, late: false });
    expect(findingWords(finding!)).toBe(
      'its 400 kB take 800 ms to receive; at its need it would have 100 kB and save 600 ms',
    );
  });

  it('is a server that thinks long, without the time of the line', () => {
    const run = load([request('/slow.css', 110, { wait: 745 })]);
    expect(found(run, 'long-wait')).toMatchObject([{ cost: 700 }]);
  });

  it('is no server that waits for a line which other responses keep busy', () => {
    // 600 kB take this line 800 ms.
    const big = request('/big.jpg', 110, { wait: 50, receive: 800 }, { transferBytes: 600_000 });
    const small = request('/small.css', 110, { wait: 845 });
    expect(found(load([big, small]), 'long-wait')).toEqual([]);
    // Half of that leaves 402.5 ms that nothing but the server explains.
    const half = { ...big, transferBytes: 300_000 };
    expect(found(load([half, small]), 'long-wait')).toMatchObject([
      { url: small.url, cost: 402.5 },
    ]);
  });

  it('is the largest picture when it is found late', () => {
    const hero = request('/hero.jpg', 900, { wait: 50 }, { initiator: 'script' });
    const largest = { selector: '#hero', url: hero.url };
    expect(found(load([hero], { largest }), 'late-discovery')).toMatchObject([{ cost: 800 }]);
    const early = { ...hero, start: 120 };
    expect(found(load([early], { largest }), 'late-discovery')).toEqual([]);
  });

  it('is pictures further down that go first, and their time on this line', () => {
    const below = request('/below.jpg', 110, { receive: 200 }, { transferBytes: 75_000 });
    const hero = request('/hero.jpg', 110, { blocked: 200, receive: 200 });
    const run = load([below, hero], { firstScreen: [hero.url] });
    expect(found(run, 'backwards-order')).toMatchObject([
      {
        url: hero.url,
        data: { images: 1, bytes: 75_000, time: 100 },
      },
    ]);
    expect(findingWords(found(run, 'backwards-order')[0]!)).toBe(
      'is in the first screen, but 1 image from further down with 75 kB (100 ms on this network) goes first',
    );
    const right = load([below, hero], { firstScreen: [below.url] });
    expect(found(right, 'backwards-order')).toEqual([]);
  });

  it('is what blocks rendering one after another', () => {
    const blocking = { renderBlocking: true };
    const first = request('/one.css', 110, { wait: 90 }, blocking);
    const beside = request('/two.css', 110, { wait: 190 }, blocking);
    const imported = request('/imported.css', 210, { wait: 190 }, blocking);
    expect(found(load([first, beside, imported]), 'blocking-chain')).toMatchObject([
      { url: imported.url, cost: 100 },
    ]);
    expect(found(load([first, beside]), 'blocking-chain')).toEqual([]);
  });

  it('is redirects and errors, with their time', () => {
    const moved = request('/old', 10, { wait: 80 }, { status: 301, redirectsTo: `${site}/new` });
    const missing = request('/none.jpg', 110, { wait: 70 }, { status: 404 });
    const run = load([moved, missing]);
    expect(found(run, 'redirect')).toMatchObject([{ cost: 80, url: moved.url }]);
    expect(found(run, 'error')).toMatchObject([{ cost: 70 }]);
    expect(found(run, 'error').map(findingWords)).toEqual(['returned 404, after 70 ms']);
  });

  it('is what was fetched and came to nothing, where that is known and worth a word', () => {
    const heavy = { transferBytes: 40_000 };
    const run = load([
      request('/shown.jpg', 110, { receive: 20 }, { ...heavy, used: true }),
      request('/unknown.jpg', 120, { receive: 20 }, { ...heavy, used: null }),
      request('/small.jpg', 130, { receive: 20 }, { transferBytes: 900, used: false }),
      request('/hidden.jpg', 140, { receive: 20 }, { ...heavy, used: false }),
      request('/print.css', 150, { receive: 20 }, { ...heavy, used: false }),
    ]);
    expect(found(run, 'unused').map(findingWords)).toEqual([
      'its 40 kB are not used: no element shows it',
      'its 40 kB are not used: no element matches any of its rules',
    ]);
  });

  it('is connections that could be one', () => {
    const connect = { connect: 45, tls: 90, wait: 50 };
    const two = [request('/a.jpg', 110, connect), request('/b.jpg', 110, connect)];
    expect(found(load(two), 'connections').map(findingWords)).toEqual([
      '2 connections to brindlebay.test: all but the first take 135 ms to open; HTTP/2 would share one',
    ]);
    expect(found(load(two.slice(0, 1)), 'connections')).toEqual([]);
  });

  it('is third parties before the page is usable; what comes after is told apart', () => {
    const third = { thirdParty: true, renderBlocking: true };
    const early = request('http://gullpost.test/ad.css', 110, { wait: 240 }, third);
    const late = request('http://driftcount.test/tag', 2_000, { wait: 400 }, { thirdParty: true });
    const run = load([early, late], { markers: { largestContentfulPaint: 1_500 } });
    expect(found(run, 'third-party')).toMatchObject([{ cost: 240, late: false }]);
    expect(found(run, 'tail')).toMatchObject([{ late: true, cost: null }]);
    const findings = loadFindingsOf(run, dsl);
    expect(findings.map((finding) => finding.late)).toEqual(
      findings.map((finding) => finding.late).sort(),
    );
    expect(found(run, 'long-wait')).toMatchObject([{ url: late.url, late: true }]);
  });

  it('calls a page usable when it is interactive and its largest content is there', () => {
    const at = (markers: Partial<Markers>) => usableAt({ markers: { ...noMarkers(), ...markers } });
    expect(at({ interactive: 500, largestContentfulPaint: 900, load: 2_000 })).toBe(900);
    expect(at({ interactive: 1_500, largestContentfulPaint: 900 })).toBe(1_500);
    expect(at({ load: 2_000 })).toBe(2_000);
    expect(at({})).toBeNull();
  });

  it('is a server that closes its connections, and then not too many connections', () => {
    const closing = {
      protocol: 'http/1.1',
      responseHeaders: [{ name: 'Connection', value: 'close' }],
    };
    const kept = { protocol: 'http/1.1', responseHeaders: [] };
    const opened = (more: Partial<PageRequest>) =>
      load(['/a.css', '/b.css', '/c.css'].map((path) => request(path, 110, { connect: 90 }, more)));
    const [finding] = found(opened(closing), 'closed-connections');
    expect(finding).toMatchObject({ data: { closed: 3, connections: 3, spent: 180 } });
    expect(findingWords(finding!)).toContain('closes the connection after 3 responses');
    expect(found(opened(closing), 'connections')).toEqual([]);
    expect(found(opened(kept), 'closed-connections')).toEqual([]);
    expect(found(opened(kept), 'connections')).toMatchObject([{ data: { connections: 3 } }]);
    // How the program itself serves a folder says nothing about the site.
    const served = new Set(['brindlebay.test']);
    for (const more of [closing, kept])
      expect(loadFindingsOf(opened(more), dsl, undefined, served)).toEqual([]);
  });

  it('is nothing that the cache has answered', () => {
    const hero = request('/hero.jpg', 900, { wait: 5 }, { fromCache: true, transferBytes: 0 });
    const far = request('http://far.test/a.css', 110, {}, { fromCache: true, transferBytes: 0 });
    const cached = [hero, { ...far, thirdParty: true, renderBlocking: true }];
    const largest = { selector: '#hero', url: hero.url };
    expect(loadFindingsOf(load(cached, { largest }), dsl)).toEqual([]);
  });
});
