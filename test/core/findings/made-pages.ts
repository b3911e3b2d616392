import type { Resource } from '../../../src/core/survey/resource.js';
import type { MadePage } from './made-site.js';

const hint = { rel: 'preload', as: 'style', crossOrigin: false, used: false } as const;
const face = {
  family: 'Kite',
  display: 'swap',
  isPart: false,
  used: true,
  urls: ['https://a.test/k'],
};
const video = {
  ...{ url: 'https://a.test/f', selector: 'video', autoplay: true, hasPoster: true },
  ...{ width: 400, height: 200, naturalWidth: 800, naturalHeight: 250 },
};
const file = (count: number, more: Partial<Resource>) =>
  Array.from({ length: count }, (_, at) => ({ ...more, url: `https://a.test/${at}.css` }));

/** Pages in words, and what is found on each. */
export const madePages: readonly [words: string, page: MadePage, ids: string[]][] = [
  ['nothing', {}, []],
  [
    'a preload that is used',
    { parts: { hints: [{ ...hint, url: 'https://a.test/site.css', used: true }] }, files: [{}] },
    [],
  ],
  [
    'a preload that is not',
    { parts: { hints: [{ ...hint, url: 'https://a.test/site.css' }] }, files: [{}] },
    ['unused-preload'],
  ],
  [
    'a preload of what nobody knows the use of',
    { parts: { hints: [{ ...hint, url: 'https://a.test/site.css', used: null }] }, files: [{}] },
    [],
  ],
  [
    'a preload for another window',
    { parts: { hints: [{ ...hint, url: 'https://a.test/site.css' }] } },
    [],
  ],
  [
    'a preconnect that is used',
    { parts: { hints: [{ ...hint, rel: 'preconnect', url: 'https://a.test/' }] }, files: [{}] },
    [],
  ],
  [
    'a preconnect that led to a redirect',
    {
      parts: { hints: [{ ...hint, rel: 'preconnect', url: 'https://b.test/' }] },
      files: [{ redirects: ['https://b.test/x'], type: 'other' }],
    },
    ['redirected-file'],
  ],
  [
    'a preconnect that is not',
    { parts: { hints: [{ ...hint, rel: 'preconnect', url: 'https://b.test/' }] } },
    ['unused-preconnect'],
  ],
  [
    'a font preloaded as it must be',
    {
      parts: {
        hints: [{ ...hint, as: 'font', crossOrigin: true, used: true, url: 'https://a.test/k' }],
      },
    },
    [],
  ],
  [
    'a font preloaded without crossorigin',
    { parts: { hints: [{ ...hint, as: 'font', url: 'https://a.test/k' }] } },
    ['font-preload'],
  ],
  ['a font that swaps', { parts: { fontFaces: [face] } }, []],
  ['a font that hides', { parts: { fontFaces: [{ ...face, display: 'auto' }] } }, ['hidden-text']],
  [
    'a font that is not used',
    { parts: { fontFaces: [{ ...face, used: false }] } },
    ['unused-font'],
  ],
  [
    'a part of a font that is not used',
    { parts: { fontFaces: [{ ...face, used: false, isPart: true }] } },
    [],
  ],
  [
    'a style sheet before a script',
    { parts: { sheets: [{ url: 'https://a.test/s', afterScript: false }] } },
    [],
  ],
  [
    'a style sheet after a script',
    { parts: { sheets: [{ url: 'https://a.test/s', afterScript: true }] } },
    ['late-style'],
  ],
  ['a script that writes', { parts: { writes: 1 } }, ['document-write']],
  ['a redirect', { load: { redirects: ['https://a.test/old'] } }, ['page-redirect']],
  ['1,500 elements', { load: { elements: 1_500 } }, []],
  ['1,501 elements', { load: { elements: 1_501 } }, ['large-dom']],
  ['half a second', { load: { wait: 500 } }, []],
  ['more than that', { load: { wait: 501 } }, ['slow-document']],
  ['what hardly moves', { load: { shifts: [{ score: 0.019, selector: 'p', cause: null }] } }, []],
  [
    'what moves',
    { load: { shifts: [{ score: 0.02, selector: 'p', cause: null }] } },
    ['layout-shift'],
  ],
  ['a film that fits', { parts: { videos: [video] } }, []],
  [
    'a film that is too large',
    { parts: { videos: [{ ...video, naturalHeight: 251 }] } },
    ['large-video'],
  ],
  [
    'a film that waits',
    { parts: { videos: [{ ...video, naturalHeight: 900, autoplay: false }] } },
    [],
  ],
  [
    'a film without a poster',
    { parts: { videos: [{ ...video, hasPoster: false }] } },
    ['no-poster'],
  ],
  [
    'a film that is not shown',
    { parts: { videos: [{ ...video, hasPoster: false, width: 0 }] } },
    [],
  ],
  ['six files over HTTP/1.1', { files: file(6, { protocol: 'http/1.1' }) }, []],
  ['seven', { files: file(7, { protocol: 'http/1.1' }) }, ['many-files', 'old-protocol']],
  [
    'seven large ones',
    { files: file(7, { protocol: 'http/1.1', transferBytes: 30_000 }) },
    ['old-protocol'],
  ],
  ['19 files over HTTP/2', { files: file(19, {}) }, []],
  ['20', { files: file(20, {}) }, ['many-files']],
  ['four fonts', { files: file(4, { type: 'font', mediaType: 'font/woff2' }) }, []],
  ['five fonts', { files: file(5, { type: 'font', mediaType: 'font/woff2' }) }, ['many-fonts']],
  [
    'two files of a server that closes',
    {
      files: file(2, {
        protocol: 'http/1.1',
        headers: { 'cache-control': 'max-age=31536000', connection: 'close' },
      }),
    },
    ['closing-server'],
  ],
  [
    'one of them',
    {
      files: file(1, {
        protocol: 'http/1.1',
        headers: { 'cache-control': 'max-age=31536000', connection: 'close' },
      }),
    },
    [],
  ],
  ['a file over http', { files: [{ url: 'http://a.test/s.css' }] }, ['mixed-schemes']],
  [
    'a redirected file',
    { files: [{ redirects: ['https://a.test/old.css'] }] },
    ['redirected-file'],
  ],
  [
    'an imported style sheet',
    { files: [{ initiator: 'style', initiatedBy: 'https://a.test/o.css' }] },
    ['import-chain'],
  ],
  ['a query', { files: [{ url: 'https://a.test/s.css?v=1' }] }, ['query-string']],
  ['cookies that are short', { files: [{ cookieBytes: 100 }] }, []],
  ['cookies that are long', { files: [{ cookieBytes: 101 }] }, ['cookies-on-files']],
  [
    'a script named twice',
    {
      files: [{ type: 'script', url: 'https://a.test/x.js' }],
      parts: {
        scripts: [1, 2].map(() => ({
          url: 'https://a.test/x.js',
          runs: 'deferred',
          inHead: true,
        })),
      },
    },
    ['doubled-script'],
  ],
  [
    'a hashed name kept for a month',
    {
      files: [
        { url: 'https://a.test/s.0a1b2c3d.css', headers: { 'cache-control': 'max-age=2592000' } },
      ],
    },
    ['short-lifetime'],
  ],
  [
    'another name kept for a month',
    { files: [{ headers: { 'cache-control': 'max-age=2592000' } }] },
    [],
  ],
  [
    'a document without a validator',
    { url: 'https://a.test/p', files: [{ type: 'html', url: 'https://a.test/p', headers: {} }] },
    ['no-validator'],
  ],
  [
    'a script that is busy',
    {
      files: [{ type: 'script' }],
      load: {
        scriptTimes: [{ url: 'https://a.test/site.css', function: 'f', time: 50, forced: 30 }],
      },
    },
    ['slow-script', 'forced-layout'],
  ],
  [
    'one that is not',
    {
      files: [{ type: 'script' }],
      load: {
        scriptTimes: [{ url: 'https://a.test/site.css', function: 'f', time: 49, forced: 29 }],
      },
    },
    [],
  ],
  [
    'four hosts',
    { files: ['a', 'b', 'c', 'd'].map((host) => ({ url: `https://${host}.a.test/s.css` })) },
    [],
  ],
  [
    'five hosts',
    { files: ['a', 'b', 'c', 'd', 'e'].map((host) => ({ url: `https://${host}.a.test/s.css` })) },
    ['many-hosts'],
  ],
  [
    'a font that an imported sheet declares',
    {
      files: [
        { url: 'https://a.test/i.css', initiator: 'style', initiatedBy: null },
        {
          type: 'font',
          mediaType: 'font/woff2',
          url: 'https://a.test/k.woff2',
          initiator: 'style',
          initiatedBy: 'https://a.test/i.css',
        },
      ],
    },
    ['import-chain', 'late-font'],
  ],
];
