import fc from 'fast-check';
import { describe, expect } from 'vitest';
import { withoutSecrets } from '../../src/core/address/secrets.js';
import { pageAddress, relativePathOf } from '../../src/core/address/address.js';
import { LynxError } from '../../src/core/base/errors.js';
import { parseSizes } from '../../src/core/slots/source-sizes.js';
import { parseSrcset } from '../../src/core/slots/srcset.js';
import { parseAddressList } from '../../src/crawl/address-list.js';
import { picturesNamedBy } from '../../src/crawl/naming-file.js';
import { retryAfterOf } from '../../src/crawl/pacer.js';
import { Robots } from '../../src/crawl/robots.js';
import { parseSitemap } from '../../src/crawl/sitemap.js';
import { readTable } from '../../src/crawl/table-file.js';
import { framesOfAvif } from '../../src/images/avif-frames.js';
import { readImageFacts } from '../../src/images/facts.js';
import { layersOf, imageOf } from '../../src/browser/in-page/css-image.js';
import { rebased, styleImports } from '../../src/texts/style-imports.js';
import { styleRules } from '../../src/texts/style-rules.js';
import { attack } from './attack.js';

/** Seconds for each parser; `LYNX_FUZZ=600` looks for longer. */
const seconds = Number(process.env['LYNX_FUZZ'] ?? 3);

/** Milliseconds that one text of some kilobytes may take at most: what doubles with each character takes far longer. */
const longest = 1_500;

/** Texts made of the pieces that a parser knows, in any order, and of others. */
function texts(...pieces: readonly string[]): fc.Arbitrary<string> {
  const piece = fc.oneof(
    { weight: 6, arbitrary: fc.constantFrom(...pieces) },
    fc.constantFrom(
      ' ',
      '\n',
      '\t',
      '\r\n',
      '\u0000',
      '\uFEFF',
      '\u202e',
      '%',
      '\\',
      '"',
      "'",
      '<',
      '>',
      '&',
    ),
    fc.string({ unit: 'binary', maxLength: 6 }),
    fc.integer().map(String),
    fc.double().map(String),
  );
  const few = fc.array(piece, { maxLength: 30 }).map((all) => all.join(''));
  // The same again and again is what makes a pattern that backtracks go on for ever.
  const many = fc.tuple(few, piece, fc.integer({ min: 1, max: 800 }), few);
  return fc.oneof(
    few,
    many.map(([start, one, times, end]) => start + one.repeat(times) + end),
  );
}

interface Parser {
  readonly texts: fc.Arbitrary<string>;
  /** Parses, and says what does not hold of the result; may only throw errors of the program's own. */
  readonly parse: (text: string) => unknown;
}

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : typeof value === 'object' && value !== null
      ? Object.values(value).flatMap(numbersIn)
      : [];

const address = [
  'http://a.test/',
  '/b.jpg',
  'data:image/png;base64,AA',
  '//c.test',
  '?q=1',
  '#x',
  '..',
  'https:',
];

const parsers: Readonly<Record<string, Parser>> = {
  'robots.txt': {
    texts: texts(
      'User-agent:',
      'ZealousLynx',
      '*',
      'Disallow:',
      'Allow:',
      '/',
      '$',
      '/*',
      '%2F',
      'Sitemap:',
      '#',
      ':',
      '\n',
      'Crawl-delay: 9',
    ),
    parse: async (text) => {
      const robots = new Robots(() => Promise.resolve({ status: 200, body: Buffer.from(text) }), 0);
      const refusal = await robots.refusal('http://a.test/some/path?with=query');
      expect([undefined, 'forbidden by robots.txt']).toContain(refusal);
      for (const one of await robots.sitemaps('http://a.test/')) expect(typeof one).toBe('string');
    },
  },
  sitemaps: {
    texts: texts(
      '<?xml version="1.0"?>',
      '<urlset xmlns="x">',
      '</urlset>',
      '<url>',
      '</url>',
      '<loc>',
      '</loc>',
      '<sitemapindex>',
      '<sitemap>',
      '<![CDATA[',
      ']]>',
      '<!--',
      '-->',
      '<!DOCTYPE a [',
      '<!ENTITY b "c">',
      ']>',
      '&b;',
      '&#0;',
      '&#x110000;',
      ...address,
    ),
    parse: (text) => {
      const { pages, sitemaps, problems } = parseSitemap(Buffer.from(text));
      for (const one of [...pages, ...sitemaps]) expect(pageAddress(one)).toBe(one);
      expect(problems.join()).not.toMatch(/\[object|NaN/);
    },
  },
  'feeds and manifests': {
    texts: texts(
      '<rss>',
      '<channel>',
      '<item>',
      '<enclosure url="',
      '"/>',
      '<media:content url="',
      '<description>',
      '&lt;img src=',
      '{"icons":[{"src":"',
      '"}]}',
      '[',
      '{',
      '"attachments":[',
      '<img src="',
      '<entry>',
      '</entry>',
      ...address,
    ),
    parse: (text) => {
      for (const kind of ['feed', 'manifest'] as const)
        for (const one of picturesNamedBy({ kind, url: 'http://a.test/feed' }, text))
          expect(URL.canParse(one)).toBe(true);
    },
  },
  'lists and tables': {
    texts: texts(
      'url,visits\n',
      'url;visits\n',
      'page\tviews\n',
      'http://a.test/',
      ',',
      ';',
      '\t',
      '"',
      '""',
      '7',
      '1.000',
      '1,000',
      '\n',
      '#',
      'width,height',
    ),
    parse: (text) => {
      for (const one of parseAddressList(text, 'list.csv')) {
        expect(pageAddress(one.url)).toBe(one.url);
        expect(numbersIn(one).every(Number.isFinite)).toBe(true);
      }
      readTable(text, 'list.csv').column(['url'], 'optional');
    },
  },
  srcset: {
    texts: texts(
      ...address,
      ' 1x',
      ' 2.5x',
      ' 300w',
      ' 300w 200h',
      ',',
      ', ',
      '(',
      ')',
      ' -1w',
      ' 1e9x',
      ' 0x',
      'w',
      'x',
    ),
    parse: (text) => {
      expect(numbersIn(parseSrcset(text)).every((one) => Number.isFinite(one))).toBe(true);
    },
  },
  sizes: {
    texts: texts(
      '(min-width: 600px)',
      '(max-width:',
      '50vw',
      '100px',
      'calc(',
      ')',
      '100vw - 20px',
      ',',
      'not',
      'and',
      'or',
      'min(',
      'max(',
      'clamp(',
      '+',
      '-',
      '*',
      '/',
      '0',
      '1e9px',
      'auto',
      '(',
      '40em',
      '(width >= 500px)',
    ),
    parse: (text) => {
      const sizes = parseSizes(text);
      for (const viewport of [0, 320, 1e9])
        expect(sizes?.(viewport, 2) ?? 0).toBeGreaterThanOrEqual(0);
    },
  },
  'style sheets': {
    texts: texts(
      '@import',
      ' "a.css"',
      'url(',
      ')',
      ';',
      '@media',
      '{',
      '}',
      '/*',
      '*/',
      'a',
      ':hover',
      'image-set(',
      '"b.jpg"',
      ' 2x',
      'type("image/avif")',
      'linear-gradient(',
      '\\',
      'screen',
      '@layer',
      'supports(',
    ),
    parse: (text) => {
      for (const { url } of styleImports(text)) expect(typeof url).toBe('string');
      rebased(text, 'http://a.test/styles/');
      expect(numbersIn(styleRules(text)).every(Number.isFinite)).toBe(true);
    },
  },
  'images of styles': {
    texts: texts(
      'url("',
      '")',
      'url(',
      ')',
      'image-set(',
      '"a.jpg"',
      ' 1x',
      ' 2dppx',
      ',',
      'none',
      'linear-gradient(',
      'rgb(',
      '-webkit-',
      'cross-fade(',
      '\\"',
      ' type("',
    ),
    parse: (text) => {
      for (const layer of layersOf(text)) {
        const found = imageOf(layer);
        expect(found === undefined || found.density > 0).toBe(true);
      }
    },
  },
  'addresses as paths': {
    texts: texts(
      'http://a.test/',
      '/',
      '..',
      '%2e',
      '%00',
      '\\',
      'CON',
      'nul.jpg',
      '.',
      'x'.repeat(300),
      '?',
      '#',
      ';',
      ':',
      '@',
      'é',
      '%C3%A9',
    ),
    parse: (text) => {
      if (!URL.canParse(text, 'http://a.test/')) return;
      const path = relativePathOf(new URL(text, 'http://a.test/').href);
      expect(path).toMatch(/^[\w~-][\w.~-]*(?:\/[\w~-][\w.~-]*)*$/);
      expect(path.length).toBeLessThan(900);
    },
  },
  'secrets in addresses': {
    texts: texts(
      'http://',
      'a:b@',
      'a.test',
      '/',
      '?',
      '&',
      '&amp;',
      'token=',
      'sig=',
      'key=',
      'x-amz-signature=',
      '=',
      ';',
      '|',
      '#',
      'abc',
      '%20',
      '"',
    ),
    parse: (text) => {
      const masked = withoutSecrets(text);
      expect(withoutSecrets(masked)).toBe(masked);
    },
  },
  'waits that servers ask for': {
    texts: texts('120', '-1', 'Wed, 21 Oct 2026 07:28:00 GMT', '1e99', 'now', ' '),
    parse: (text) => {
      const rest = retryAfterOf(text, 1_790_000_000_000);
      expect(rest === null || (Number.isFinite(rest) && rest >= 0)).toBe(true);
    },
  },
  'heads of images': {
    texts: texts(
      '\u0089PNG\r\n\u001a\n',
      'IHDR',
      'acTL',
      'IDAT',
      'GIF89a',
      'RIFF',
      'WEBPVP8 ',
      'ftypavif',
      'moov',
      'trak',
      'stsz',
      '<svg',
      '<!DOCTYPE svg [',
      '<!-- > -->',
      '<!ENTITY a "b">',
      ']>',
      '<?xml ?>',
      ' xmlns="http://www.w3.org/2000/svg">',
      '\u0000\u0000\u0000\u0008',
      '\u00ff\u00d8\u00ff',
    ),
    parse: async (text) => {
      const body = Buffer.from(text, 'latin1');
      const facts = await readImageFacts(body, 'image/x');
      expect(numbersIn(facts).every((one) => Number.isFinite(one) && one >= 0)).toBe(true);
      expect(framesOfAvif(body)).toBeGreaterThanOrEqual(1);
    },
  },
};

/** What runs in a page knows its window. */
Object.assign(globalThis, { devicePixelRatio: 2 });

describe('parsers', () => {
  for (const [name, { texts: all, parse }] of Object.entries(parsers))
    attack(
      'held',
      `${name}, for ${seconds} s`,
      async () => {
        await fc.assert(
          fc.asyncProperty(all, async (text) => {
            const began = performance.now();
            try {
              await parse(text);
            } catch (error) {
              if (!(error instanceof LynxError)) throw error;
              expect(error.message).not.toMatch(/\[object/);
            }
            expect(performance.now() - began).toBeLessThan(longest);
          }),
          {
            numRuns: 10_000_000,
            interruptAfterTimeLimit: seconds * 1000,
            markInterruptAsFailure: false,
          },
        );
      },
      seconds + 120,
    );
});
