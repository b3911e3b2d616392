import { describe, expect, it } from 'vitest';
import type { PageRequest } from '../../../src/core/load/request.js';
import { matchRequests } from '../../../src/core/load/request-matching.js';
import { pageRequest } from '../../support/page-request.js';

function request(url: string, transferBytes: number, more: Partial<PageRequest> = {}): PageRequest {
  const type = /\.(jpg|webp|png)/.test(url) ? 'image' : 'html';
  return pageRequest(url, { type, end: 100, transferBytes, ...more });
}

const site = 'http://a.test';
const outcome = (before: readonly PageRequest[], after: readonly PageRequest[]) =>
  matchRequests({ requests: before }, { requests: after }).map((change) => [
    change.before?.url.slice(site.length) ?? null,
    change.after?.url.slice(site.length) ?? null,
    change.by,
    change.bytes,
  ]);

describe('matchRequests', () => {
  it('pairs by address, the most saved first, and says what is gone and new', () => {
    expect(
      outcome(
        [request(`${site}/`, 10), request(`${site}/a.jpg`, 500), request(`${site}/tag`, 70)],
        [request(`${site}/a.jpg`, 200), request(`${site}/`, 12), request(`${site}/more`, 40)],
      ),
    ).toEqual([
      ['/a.jpg', '/a.jpg', 'address', -300],
      ['/tag', null, null, -70],
      ['/', '/', 'address', 2],
      [null, '/more', null, 40],
    ]);
  });

  it('tells what is put off from what is gone, also under another name', () => {
    const before = [
      request(`${site}/`, 10),
      request(`${site}/img/kite.jpg`, 500),
      request(`${site}/img/old.jpg`, 90),
      request(`${site}/img/gone.jpg`, 70),
    ];
    const changes = matchRequests(
      { requests: before },
      {
        requests: [request(`${site}/`, 10)],
        putOff: [`${site}/img/kite-480.webp`, `${site}/img/old.jpg`],
      },
    );
    const told = changes.map((change) => [change.before?.url.slice(site.length), change.putOff]);
    expect(told).toEqual([
      ['/img/kite.jpg', true],
      ['/img/old.jpg', true],
      ['/img/gone.jpg', false],
      ['/', false],
    ]);
  });

  it.each([
    ['/img/kite.jpg', '/img/kite-480.webp'],
    ['/img/kite-1200x800.jpg', '/img/kite-640w.webp'],
    ['/img/kite@2x.png', '/img/kite.png?v=2'],
    ['/img/kite-640-0a1b2c3d.webp', '/img/kite-480-9f8e7d6c.webp'],
  ])('knows %s again as %s', (one, other) => {
    expect(outcome([request(site + one, 9)], [request(site + other, 4)])).toEqual([
      [one, other, 'name', -5],
    ]);
  });

  it('does not take another picture, host or type for the same', () => {
    for (const other of ['/img/boat.jpg', '/other/kite.jpg', '/img/kite.html'])
      expect(outcome([request(`${site}/img/kite.jpg`, 9)], [request(site + other, 4)])).toEqual([
        ['/img/kite.jpg', null, null, -9],
        [null, other, null, 4],
      ]);
  });

  it('pairs the document and the largest picture by what they are', () => {
    const [before, after] = [
      [request(`${site}/home`, 9), request(`${site}/hero.jpg`, 90)],
      [request(`${site}/start`, 9, { end: 40 }), request(`${site}/main/face.webp`, 30)],
    ];
    const changes = matchRequests(
      { requests: before, largest: { selector: '', url: before[1]!.url } },
      { requests: after, largest: { selector: '', url: after[1]!.url } },
    );
    expect(changes.map(({ by, bytes, end }) => [by, bytes, end])).toEqual([
      ['role', -60, 0],
      ['role', 0, -60],
    ]);
  });

  it('pairs as many of one address as there are on both sides', () => {
    const twice = [request(`${site}/a.jpg`, 5), request(`${site}/a.jpg`, 5, { start: 9 })];
    expect(outcome(twice, twice.slice(1))).toHaveLength(2);
  });
});
