/** Evidence of each kind of finding on files and pages, the words for it, and what is to be done. */
export type Told = readonly (readonly [
  id: string,
  data: object,
  words: string,
  step: string | undefined,
])[];

const url = 'http://a.test/x';

/** Evidence of findings on connections, services, the main thread, fonts and videos. */
export const toldOfPages: Told = [
  [
    'document-write',
    { page: url, script: null },
    'has a script that writes into the document while it is read (document.write)',
    'insert elements instead of writing into the document',
  ],
  [
    'document-write',
    { page: url, script: 'http://b.test/x.js' },
    'is written into by http://b.test/x.js while it is read (document.write)',
    'insert elements instead of writing into the document',
  ],
  [
    'page-redirect',
    { redirects: ['http://a.test/y'], to: url, time: 120, network: 'mobile' },
    'is reached through 1 redirect from http://a.test/y to http://a.test/x (120 ms on the line mobile)',
    'link to http://a.test/x at once',
  ],
  [
    'redirected-file',
    { url, redirects: ['http://a.test/y', 'http://a.test/z'], time: 240, network: 'mobile' },
    'is reached through 2 redirects from http://a.test/y (240 ms on the line mobile)',
    'name http://a.test/x at once',
  ],
  [
    'mixed-schemes',
    { url, status: 0, pages: 1 },
    'is asked for over http by 1 page over https, and refused by the browser',
    'write https in its address',
  ],
  [
    'many-hosts',
    { count: 2, hosts: ['a.test', 'b.test'], time: 240, network: 'mobile' },
    'needs 2 hosts early (a.test, b.test); connecting takes 240 ms on the line mobile',
    'serve from one host what comes from b.test',
  ],
  [
    'closing-server',
    { domain: 'a.test', files: 9, most: 8, time: 240, network: 'mobile' },
    'a.test closes the connection after 9 files; a page is sent up to 8 of them (240 ms on the line mobile)',
    'turn keep-alive on',
  ],
  [
    'old-protocol',
    { domain: 'a.test', most: 20, time: 360, network: 'mobile' },
    'a.test sends up to 20 files to a page over HTTP/1.1, where they wait in line for six connections (360 ms on the line mobile)',
    'serve it over HTTP/2 or HTTP/3',
  ],
  [
    'slow-document',
    { best: 702, usual: 12 },
    'takes at least 702 ms from the request to the first byte; the median page of the survey takes 12 ms',
    'find out what the server works on, and keep the page in a cache',
  ],
  [
    'third-party-service',
    {
      ...{ domain: 'b.test', requests: 3, bytesPerVisit: 33_000, mainThreadTime: 80 },
      ...{ blocking: 1, pages: 2, allPages: 18 },
    },
    'b.test sends 3 files to 2 of 18 pages, 33 kB per visit, keeps the main thread busy for 80 ms, blocks rendering with 1 file',
    undefined,
  ],
  [
    'idle-service',
    { domain: 'b.test', statuses: [404, 0], unused: null },
    'b.test answers with 404, not at all: does anybody still need it?',
    'ask who needs b.test; if nobody does, remove what loads it',
  ],
  [
    'idle-service',
    { domain: 'b.test', statuses: [], unused: 0.93 },
    'b.test sends scripts of which 93 % is never called, and which ask for nothing more: does anybody still need it?',
    'ask who needs b.test; if nobody does, remove what loads it',
  ],
  [
    'doubled-script',
    { url, times: 2, other: 'http://a.test/x?2', pages: 3 },
    'is loaded twice by a page, the other time as http://a.test/x?2 (on 3 pages)',
    'load it once',
  ],
  [
    'slow-script',
    { url, time: 180, function: 'countKites' },
    'keeps the main thread busy for 180 ms while a page loads, mostly in countKites',
    'do its work later or in parts, or do without it',
  ],
  [
    'forced-layout',
    { url, time: 60, function: '' },
    'has the page laid out for 60 ms while it runs',
    'read sizes first and write styles after',
  ],
  [
    'layout-shift',
    { selector: 'main > p', score: 0.12, cause: { selector: '#banner', url } },
    'main > p moves while the page loads (score 0.12): #banner arrives above it without a size',
    'give #banner a width and a height',
  ],
  [
    'layout-shift',
    { selector: 'main > p', score: 0.12, cause: null },
    'main > p moves while the page loads (score 0.12)',
    'find out what arrives above it, and keep its place free',
  ],
  [
    'large-dom',
    { elements: 2_400, allowed: 1_500 },
    'has 2,400 elements; over 1,500 make a phone slow',
    undefined,
  ],
  [
    'font-characters',
    { url, characters: 96, woff2Bytes: 90_000, subsetBytes: 14_000 },
    'has 90 kB as WOFF2; with the 96 characters that the pages draw it would have 14 kB',
    'make a subset with the characters of the site’s languages',
  ],
  [
    'font-preload',
    { font: url, transferBytes: 20_000 },
    'preloads http://a.test/x without crossorigin: it comes twice, 20 kB each time',
    'add crossorigin to the preload of http://a.test/x',
  ],
  [
    'hidden-text',
    { families: ['Bay Sans', 'Bay Serif'] },
    'hides the text in Bay Sans, Bay Serif until the font has come (font-display)',
    'write font-display: swap for Bay Sans, Bay Serif',
  ],
  [
    'late-font',
    { url, declaredBy: 'http://a.test/type.css', time: 120, network: 'mobile' },
    'is found late: http://a.test/type.css asks for it (120 ms on the line mobile)',
    'preload it, or declare it in the first style sheet',
  ],
  [
    'many-fonts',
    { count: 6, fontBytes: 120_000, allowed: 4 },
    'is sent 6 fonts with 120 kB; 4 are usually enough',
    undefined,
  ],
  [
    'animated-gif',
    { url, frames: 24, bytes: 900_000, estimatedBytes: 60_000 },
    'is a GIF of 24 frames with 900 kB; a film would have about 60 kB (estimated from its frames)',
    'make a film of it',
  ],
  [
    'large-video',
    {
      ...{ video: url, selector: 'video', box: { width: 400, height: 225 } },
      pixels: { width: 1920, height: 1080 },
    },
    'plays http://a.test/x of 1920 × 1080 px by itself in a box of 400 × 225 px',
    'offer it in 400 × 225 px or little more',
  ],
  [
    'no-poster',
    { selector: 'main > video', video: url },
    'main > video (http://a.test/x) has no poster',
    'give main > video a poster',
  ],
  [
    'split-cache',
    { url, by: ['user-agent', '*'] },
    'varies by user-agent, everything: shared caches hardly ever have it',
    'name in its vary header only what it really differs by',
  ],
];
