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
import { readStyleRules, styleRules } from '../../src/texts/style-rules.js';
import { attack } from './attack.js';
import { textsFor } from './pieces.js';

/** Seconds for each parser; `LYNX_FUZZ=600` looks for longer. */
const seconds = Number(process.env['LYNX_FUZZ'] ?? 3);

/** Milliseconds of the processor that a text of some kilobytes may take: what doubles with each character takes far longer. */
const longest = 1_500;

interface Parser {
  /** Parses, and says what does not hold of the result; may only throw errors of the program's own. */
  readonly parse: (text: string) => unknown;
}

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : typeof value === 'object' && value !== null
      ? Object.values(value).flatMap(numbersIn)
      : [];

const parsers: Readonly<Record<string, Parser>> = {
  'robots.txt': {
    parse: async (text) => {
      const robots = new Robots(() => Promise.resolve({ status: 200, body: Buffer.from(text) }), 0);
      const refusal = await robots.refusal('http://a.test/some/path?with=query');
      expect([undefined, 'forbidden by robots.txt']).toContain(refusal);
      for (const one of await robots.sitemaps('http://a.test/')) expect(typeof one).toBe('string');
    },
  },
  sitemaps: {
    parse: (text) => {
      const { pages, sitemaps, problems } = parseSitemap(Buffer.from(text));
      for (const one of [...pages, ...sitemaps]) expect(pageAddress(one)).toBe(one);
      // What is quoted may say so itself.
      if (!/\[object|NaN/.test(text)) expect(problems.join()).not.toMatch(/\[object|NaN/);
    },
  },
  'feeds and manifests': {
    parse: (text) => {
      for (const kind of ['feed', 'manifest'] as const)
        for (const one of picturesNamedBy({ kind, url: 'http://a.test/feed' }, text))
          expect(URL.canParse(one)).toBe(true);
    },
  },
  'lists and tables': {
    parse: (text) => {
      for (const one of parseAddressList(text, 'list.csv')) {
        expect(pageAddress(one.url)).toBe(one.url);
        expect(numbersIn(one).every(Number.isFinite)).toBe(true);
      }
      readTable(text, 'list.csv').column(['url'], 'optional');
    },
  },
  srcset: {
    parse: (text) => {
      expect(numbersIn(parseSrcset(text)).every((one) => Number.isFinite(one))).toBe(true);
    },
  },
  sizes: {
    parse: (text) => {
      const sizes = parseSizes(text);
      for (const viewport of [0, 320, 1e9])
        expect(sizes?.(viewport, 2) ?? 0).toSatisfy((one: number) => one >= 0 && one < Infinity);
    },
  },
  'style sheets': {
    parse: (text) => {
      for (const { url } of styleImports(text)) expect(typeof url).toBe('string');
      rebased(text, 'http://a.test/styles/');
      const rules = readStyleRules(text).flatMap(({ start, end }) => [start, end]);
      expect(rules).toEqual(styleRules(text));
    },
  },
  'images of styles': {
    parse: (text) => {
      for (const layer of layersOf(text)) {
        const found = imageOf(layer);
        expect(found === undefined || found.density > 0).toBe(true);
      }
    },
  },
  'addresses as paths': {
    parse: (text) => {
      if (!URL.canParse(text, 'http://a.test/')) return;
      const path = relativePathOf(new URL(text, 'http://a.test/').href);
      expect(path).toMatch(/^[\w~-][\w.~-]*(?:\/[\w~-][\w.~-]*)*$/);
      expect(path.length).toBeLessThan(900);
    },
  },
  'secrets in addresses': {
    parse: (text) => {
      const masked = withoutSecrets(text);
      expect(withoutSecrets(masked)).toBe(masked);
    },
  },
  'waits that servers ask for': {
    parse: (text) => {
      const rest = retryAfterOf(text, 1_790_000_000_000);
      expect(rest === null || (Number.isFinite(rest) && rest >= 0)).toBe(true);
    },
  },
  'heads of images': {
    parse: async (text) => {
      const body = Buffer.from(text, 'latin1');
      const facts = await readImageFacts(body, 'image/x');
      expect(numbersIn(facts).every((one) => Number.isFinite(one) && one >= 0)).toBe(true);
      expect(framesOfAvif(body)).toBeGreaterThanOrEqual(1);
    },
  },
};

/** What was found before, to be tried first. */
const found: Readonly<Record<string, readonly string[]>> = {
  sitemaps: ['NaN<?xml version="1.0"?>', 'https://5e-324..'],
  'lists and tables': [`url,visits\nhttp://a.test/,${'7'.repeat(320)}`],
  srcset: [`/a.jpg ${'1'.repeat(320)}x`],
  sizes: ['0/50vw', 'calc(1px/0)', `${'9'.repeat(320)}px`],
};

/** What runs in a page knows its window. */
Object.assign(globalThis, { devicePixelRatio: 2 });

describe('parsers', () => {
  for (const [name, { parse }] of Object.entries(parsers))
    attack(
      'held',
      `${name}, for ${seconds} s`,
      async () => {
        await fc.assert(
          fc.asyncProperty(textsFor(name), async (text) => {
            const began = process.cpuUsage();
            try {
              await parse(text);
            } catch (error) {
              if (!(error instanceof LynxError)) throw error;
              expect(error.message).not.toMatch(/\[object/);
            }
            const { user, system } = process.cpuUsage(began);
            expect((user + system) / 1000).toBeLessThan(longest);
          }),
          {
            numRuns: 10_000_000,
            examples: (found[name] ?? []).map((text): [string] => [text]),
            interruptAfterTimeLimit: seconds * 1000,
            markInterruptAsFailure: false,
          },
        );
      },
      seconds + 120,
    );
});
