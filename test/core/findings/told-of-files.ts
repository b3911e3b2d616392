import type { Told } from './told-of-pages.js';

const url = 'http://a.test/x';

/** Evidence of findings on texts, use and order. */
export const toldOfFiles: Told = [
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
    { url, transferBytes: 790, time: 122, network: 'mobile' },
    'blocks rendering: nothing is drawn before its 790 B have arrived and run (122 ms on the line mobile)',
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
    { url, format: 'WOFF', wireBytes: 30_000, woff2Bytes: null },
    'is a WOFF font of 30 kB; WOFF2 is usually a third smaller than WOFF',
    'offer it as WOFF2',
  ],
  [
    'old-font',
    { url, format: 'TrueType', wireBytes: 30_000, woff2Bytes: 12_000 },
    'is a TrueType font of 30 kB; as WOFF2 it has 12 kB',
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
    { url, seconds: null, hasValidator: false, transferBytes: 790, sameIn: null },
    'has no lifetime in caches: a second visit loads its 790 B again, because it has no validator (etag, last-modified) either',
    'let browsers keep it: a year if its name changes with its content, else a week',
  ],
  [
    'short-lifetime',
    { url, seconds: 0, hasValidator: true, transferBytes: 790, sameIn: null },
    'must not be used without asking the server: a second visit asks for it again',
    'let browsers keep it: a year if its name changes with its content, else a week',
  ],
  [
    'short-lifetime',
    { url, seconds: 3_600, hasValidator: true, transferBytes: 790, sameIn: null },
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
    'no-validator',
    { url, transferBytes: 4_700 },
    'has no validator (etag, last-modified): each visit loads its 4.7 kB again',
    'send etag or last-modified with it',
  ],
  [
    'query-string',
    { url, query: '?v=3' },
    'has a query string (?v=3) where its name could say the version',
    'put the version into the path instead of the query',
  ],
  [
    'cookies-on-files',
    { url, host: 'a.test', cookieBytes: 400 },
    'is asked for with 400 B of cookies, like all static files of a.test',
    'set cookies only for what needs them',
  ],
  [
    'unused-style',
    { url, share: 0.84, unusedBytes: 20_000, wireBytes: 24_000, pages: 12, groups: [] },
    '84 % of it (20 kB of 24 kB on the wire) are rules that match nothing on 12 pages',
    'take out the rules that no page uses',
  ],
  [
    'unused-script',
    { url, share: 0.5, unusedBytes: 12_000, wireBytes: 24_000, pages: 1, groups: [] },
    '50 % of it (12 kB of 24 kB on the wire) are functions that nothing calls on 1 page while it loads and is scrolled',
    'take out what no page calls, or load it when it is needed',
  ],
  [
    'needed-by-few',
    { url, wireBytes: 9_000, needed: ['/gallery/'], idle: ['/journal/*/'], idlePages: 4 },
    'is needed by /gallery/; 4 pages of /journal/*/ load its 9.0 kB, too',
    'load it only where it is needed: /gallery/',
  ],
  [
    'unused-preload',
    { file: url, transferBytes: 846 },
    'preloads http://a.test/x (846 B) and does not use it',
    'remove the preload of http://a.test/x',
  ],
  [
    'unused-preconnect',
    { origin: 'http://b.test' },
    'connects to http://b.test ahead of time and asks it for nothing',
    'remove the preconnect to http://b.test',
  ],
  [
    'unused-font',
    { families: ['Bay Sans'], count: 1 },
    'has 1 font declared that no page draws with: Bay Sans',
    'remove the @font-face rules of Bay Sans',
  ],
  [
    'import-chain',
    { url, importedBy: 'http://a.test/site.css', time: 120, network: 'mobile' },
    'is imported by http://a.test/site.css, and comes a round trip later than a link would bring it (120 ms on the line mobile)',
    'link to it from the document instead of importing it',
  ],
  [
    'many-files',
    {
      ...{ kind: 'style sheets', host: 'a.test', count: 14, protocol: 'http/1.1' },
      ...{ timeHttp1: 240, timeHttp2: 0, headerBytes: 2_600, network: 'mobile', files: [url] },
    },
    'loads 14 small style sheets from a.test; one file would save 2.6 kB of headers, and 240 ms over HTTP/1.1 on the line mobile (over HTTP/2 hardly any time)',
    'join the 14 style sheets to one file',
  ],
  [
    'late-style',
    { count: 1, sheets: [url] },
    'has 1 style sheet after a script that runs at once: http://a.test/x',
    'link to http://a.test/x before the scripts',
  ],
];
