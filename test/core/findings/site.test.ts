import { describe, expect, it } from 'vitest';
import { siteFindingsOf } from '../../../src/core/findings/site/index.js';
import type { Resource, Resources, TextFacts } from '../../../src/core/survey/resource.js';

const plain: Resource = {
  url: 'http://a.test/site.css',
  type: 'style',
  status: 200,
  mediaType: 'text/css',
  protocol: 'http/1.1',
  headers: { 'cache-control': 'max-age=31536000', etag: '"1"' },
  transferBytes: 5_200,
  wireBytes: 5_000,
  bodyBytes: 5_000,
  contentHash: 'a',
  renderBlocking: true,
  thirdParty: false,
  ...{ initiator: 'parser', initiatedBy: null, redirects: [], cookieBytes: 0, times: 1 },
};
const text: TextFacts = {
  ...{ contentHash: 'a', bytes: 5_000, gzip: 4_900, brotli: 4_800 },
  minified: { bytes: 4_900, gzip: 4_800 },
  embedded: { count: 0, bytes: 0 },
};

/** Findings on one file that one page is sent in its only visit, as `id: evidence`. */
function findingsOn(resource: Partial<Resource>, facts: Partial<TextFacts> = {}) {
  const one = { ...plain, ...resource };
  const found = siteFindingsOf({
    resources: {
      ...{ list: [one], ofVisit: [[0]], loads: [null] },
      texts: new Map([['a', { ...text, ...facts }]]),
    },
    weighed: {
      visits: [{ page: 'http://a.test/', view: 'phone', measured: true }],
      weights: [1],
    },
    groupOf: () => null,
  });
  return Object.fromEntries(found.map(({ id, data, perVisit }) => [id, { ...data, perVisit }]));
}

describe('findings on files', () => {
  it('find nothing in a file without a fault', () => {
    expect(findingsOn({})).toEqual({});
  });

  it.each([
    // A byte less than the saving that is worth a row, and a file that is hardly larger than gzip's.
    [{ wireBytes: 5_799 }, { gzip: 4_900, brotli: 4_800 }, false],
    [{ wireBytes: 5_800 }, { gzip: 4_900, brotli: 4_800 }, true],
    [{ wireBytes: 53_000 }, { gzip: 49_000, brotli: 48_000 }, false],
    [
      { wireBytes: 60_000, headers: { ...plain.headers, 'content-encoding': 'gzip' } },
      { gzip: 49_000, brotli: 40_000 },
      true,
    ],
    // From the cache of another page: its wire is not known.
    [{ wireBytes: 0 }, { gzip: 10, brotli: 10 }, false],
  ])('tell a text that is not compressed, or badly: %j %j', (resource, facts, found) => {
    const wire = 'wireBytes' in resource ? resource.wireBytes : 0;
    expect('uncompressed-text' in findingsOn(resource, facts)).toBe(found);
    if (found)
      expect(findingsOn(resource, facts)['uncompressed-text']).toMatchObject({
        perVisit: wire - facts.brotli,
      });
  });

  it.each([
    [{ gzip: 4_900, minified: { bytes: 1, gzip: 3_901 } }, false],
    [{ gzip: 4_900, minified: { bytes: 1, gzip: 3_900 } }, true],
    // Less than a twentieth.
    [{ gzip: 49_000, minified: { bytes: 1, gzip: 46_600 } }, false],
    [{ gzip: 49_000, minified: null }, false],
  ])('tell a text that is not minified: %j', (facts, found) => {
    expect('unminified-text' in findingsOn({}, facts)).toBe(found);
  });

  it.each<[Resource['headers'], number | null | false]>([
    [{ 'cache-control': 'public, max-age=604800' }, false],
    [{ 'cache-control': 'max-age=604799' }, 604_799],
    [{ 'cache-control': 'no-cache' }, 0],
    [{ 'cache-control': 'Max-Age = 60' }, 60],
    [{}, null],
    [{ expires: '0' }, 0],
    // When it was sent is not known.
    [{ expires: 'Thu, 26 Nov 2026 12:00:00 GMT' }, false],
  ])('tell how long a static file may be kept: %j', (headers, seconds) => {
    const found = findingsOn({ headers })['short-lifetime'];
    if (seconds === false) expect(found).toBeUndefined();
    else expect(found).toMatchObject({ seconds, hasValidator: false });
    expect(findingsOn({ headers, thirdParty: true })).not.toHaveProperty('short-lifetime');
    expect(findingsOn({ headers, type: 'html' })).not.toHaveProperty('short-lifetime');
  });

  it.each<[Partial<Resource>, string | null]>([
    [{ url: 'http://a.test/f.woff2', mediaType: 'font/woff2' }, null],
    [{ url: 'http://a.test/f.woff2?v=3', mediaType: 'application/octet-stream' }, null],
    [{ url: 'http://a.test/f.woff', mediaType: 'font/woff' }, 'WOFF'],
    [{ url: 'http://a.test/f', mediaType: 'font/ttf' }, 'TrueType'],
  ])('tell a font in an old format: %j', (resource, format) => {
    const found = findingsOn({ ...resource, type: 'font', contentHash: null })['old-font'];
    if (format === null) expect(found).toBeUndefined();
    else expect(found).toMatchObject({ format, perVisit: null });
  });

  it('tell what blocks, what is missing, and what is embedded', () => {
    expect(findingsOn({ type: 'script' })).toHaveProperty('blocking-script');
    expect(findingsOn({ type: 'script', renderBlocking: false })).toEqual({});
    expect(findingsOn({ status: 404 })['failed-file']).toMatchObject({ status: 404 });
    expect(findingsOn({ status: 404, type: 'html' })).toEqual({});
    const silent = { status: 0, transferBytes: 0, wireBytes: 0, contentHash: null };
    expect(findingsOn({ ...silent, type: 'script' })).toEqual({
      'failed-file': { url: plain.url, status: 0, blocks: true, perVisit: null },
    });
    expect(findingsOn({}, { embedded: { count: 2, bytes: 7_999 } })).toEqual({});
    expect(findingsOn({}, { embedded: { count: 2, bytes: 8_000 } })).toMatchObject({
      'embedded-data': { count: 2, embeddedBytes: 8_000, blocks: true },
    });
  });

  it.each<[Partial<Resource>, Record<string, object>]>([
    [{ headers: { 'cache-control': 'max-age=86399' } }, {}],
    [
      { headers: { 'cache-control': 'max-age=86400' } },
      { 'long-lived-document': { seconds: 86_400 } },
    ],
    [{ headers: { 'cache-control': 'no-cache, max-age=86400' } }, {}],
    [{ bodyBytes: 200_000, headers: {} }, {}],
    [{ bodyBytes: 200_001, headers: {} }, { 'large-document': { textBytes: 200_001 } }],
  ])('tell a document that is kept for long, and one that is large: %j', (resource, found) => {
    const told = findingsOn({ ...resource, type: 'html' });
    expect(Object.keys(told)).toEqual(Object.keys(found));
    expect(told).toMatchObject(found);
  });

  it.each([
    ['Accept-Encoding', undefined],
    ['Accept-Encoding, User-Agent', ['user-agent']],
    ['*', ['*']],
  ])('tell a file that varies by what differs from visitor to visitor: %s', (vary, by) => {
    const found = findingsOn({ headers: { ...plain.headers, vary } })['split-cache'];
    if (by) expect(found).toMatchObject({ by });
    else expect(found).toBeUndefined();
  });

  it('weigh what a file costs by the visits that are sent it, and put documents of a group together', () => {
    const document = (path: string) => ({
      ...plain,
      ...{ url: `http://a.test${path}`, type: 'html' as const, contentHash: path },
      headers: {},
    });
    const list = [
      { ...plain, wireBytes: 10_000 },
      { ...document('/p/1'), wireBytes: 9_000 },
      { ...document('/p/2'), wireBytes: 8_000 },
      { ...document('/x'), wireBytes: 7_000 },
      // The same under another address, which fewer visits are sent.
      { ...plain, url: 'http://a.test/copy.css', wireBytes: 4_900 },
    ];
    const facts = (contentHash: string) => ({ ...text, contentHash, gzip: 5_000, brotli: 5_000 });
    const resources: Resources = {
      list,
      ofVisit: [[1, 0], [2, 0], [3, 4], [0]],
      texts: new Map(['a', '/p/1', '/p/2', '/x'].map((hash) => [hash, facts(hash)])),
      loads: [],
    };
    const visits = ['/p/1', '/p/2', '/x', '/unmeasured'].map((path) => ({
      ...{ page: `http://a.test${path}`, view: 'phone' },
      measured: path !== '/unmeasured',
    }));
    const found = siteFindingsOf({
      resources,
      weighed: { visits, weights: [0.5, 0.3, 0.2, 0] },
      groupOf: (page) => (page.includes('/p/') ? '/p/*' : null),
    });
    expect(
      found
        .filter(({ id }) => id !== 'no-validator')
        .map(({ id, url, group, pages, perVisit }) => [
          ...[id, url.slice('http://a.test'.length), group, pages.length],
          perVisit === null ? null : Math.round(perVisit),
        ]),
    ).toEqual([
      ['uncompressed-text', '/site.css', null, 2, 4_000],
      ['uncompressed-text', '/p/1', '/p/*', 2, 2_900],
      ['several-copies', '/copy.css', null, 1, 1_040],
      ['uncompressed-text', '/x', null, 1, 400],
    ]);
  });
});
