import { describe, expect, it } from 'vitest';
import { findingKind, findingKinds } from '../../../src/core/findings/index.js';
import { findingWords } from '../../../src/output/words/findings.js';

const url = 'http://a.test/x';

/** Evidence of each kind of finding on files, the words for it, and what is to be done. */
const told: readonly (readonly [id: string, data: object, words: string, step: string])[] = [
  [
    'uncompressed-text',
    { url, encoding: 'identity', wireBytes: 7_100, gzipBytes: 1_900, brotliBytes: 1_800 },
    'is sent uncompressed in 7.1 kB; gzip makes 1.9 kB of it, Brotli 1.8 kB',
    'send it compressed',
  ],
  [
    'uncompressed-text',
    { url, encoding: 'gzip', wireBytes: 7_100, gzipBytes: 1_900, brotliBytes: 1_800 },
    'is sent with content-encoding gzip in 7.1 kB; gzip makes 1.9 kB of it, Brotli 1.8 kB',
    'send it compressed',
  ],
  [
    'unminified-text',
    {
      ...{ url, textBytes: 251_000, minifiedBytes: 205_000 },
      ...{ gzipBytes: 31_000, minifiedGzipBytes: 29_000 },
    },
    'is not minified: 251 kB would be 205 kB (compressed by gzip, 31 kB would be 29 kB)',
    'minify it when the site is built or published',
  ],
  [
    'failed-file',
    { url, status: 404, blocks: false },
    'returns 404',
    'correct its address, or remove what asks for it',
  ],
  [
    'failed-file',
    { url, status: 0, blocks: true },
    'gives no answer; the page is not drawn before that is known',
    'correct its address, or remove what asks for it',
  ],
  [
    'several-copies',
    { url, same: 'http://a.test/y' },
    'is the same as http://a.test/y',
    'name http://a.test/y in its place',
  ],
  [
    'blocking-script',
    { url, transferBytes: 790 },
    'blocks rendering: nothing is drawn before its 790 B have arrived and run',
    'add defer or async to its script element',
  ],
  [
    'embedded-data',
    { url, count: 1, embeddedBytes: 9_000, textBytes: 12_000, blocks: true },
    'holds 1 file as data: with 9.0 kB of its 12 kB; the page is not drawn before they have arrived',
    'serve what is embedded in it as files of their own',
  ],
  [
    'old-font',
    { url, format: 'WOFF', transferBytes: 30_000 },
    'is a WOFF font of 30 kB; WOFF2 is usually a third smaller than WOFF',
    'offer it as WOFF2',
  ],
  [
    'large-document',
    { url, textBytes: 300_000, transferBytes: 40_000, limit: 200_000 },
    'has 300 kB of markup (40 kB on the wire); over 200 kB takes a phone long to read',
    'make the document smaller: split it, and take embedded styles, scripts and data out',
  ],
  [
    'short-lifetime',
    { url, seconds: null, hasValidator: false, transferBytes: 790 },
    'has no lifetime in caches: a second visit loads its 790 B again, because it has no validator (etag, last-modified) either',
    'let browsers keep it: a year if its name changes with its content, else a week',
  ],
  [
    'short-lifetime',
    { url, seconds: 0, hasValidator: true, transferBytes: 790 },
    'must not be used without asking the server: a second visit asks for it again',
    'let browsers keep it: a year if its name changes with its content, else a week',
  ],
  [
    'short-lifetime',
    { url, seconds: 3_600, hasValidator: true, transferBytes: 790 },
    'may be kept for 1 hour: a second visit asks for it again',
    'let browsers keep it: a year if its name changes with its content, else a week',
  ],
  [
    'long-lived-document',
    { url, seconds: 172_800 },
    'may be kept for 2 days: who was here before does not see changes until then',
    'have browsers ask whether the document is still good (cache-control: no-cache)',
  ],
  [
    'split-cache',
    { url, by: ['user-agent', '*'] },
    'varies by user-agent, everything: shared caches hardly ever have it',
    'name in its vary header only what it really differs by',
  ],
];

describe('the words of findings on files', () => {
  it.each(told)('tell %s %j', (id, data, words, step) => {
    expect(findingWords({ id, data })).toBe(words);
    expect(findingKind(id)!.step!(data)).toBe(step);
  });

  it('are there for every kind', () => {
    const ids = new Set(told.map(([id]) => id));
    expect(ids).toEqual(new Set(findingKinds.site.map(({ id }) => id)));
  });
});
