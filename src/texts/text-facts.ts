import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import type { TextFacts } from '../core/survey/resource.js';
import { fontFormatOf } from './font-facts.js';
import { minified } from './minify.js';
import { smallerVector } from './smaller-vector.js';
import { styleRules } from './style-rules.js';

const byGzip = promisify(gzip);
const byBrotli = promisify(brotliCompress);

/** What a text is. */
export type ExaminedKind = 'html' | 'style' | 'script' | 'data' | 'font' | 'vector';

export interface ExamineOptions {
  /** Whether a minifier is asked. */
  readonly minifies?: boolean;
  /** The rules of a style sheet, where they have been read already (`styleRules`). */
  readonly rules?: readonly number[] | undefined;
}

/** What can be made of a text or a font: compressed, minified, without what is embedded in it. */
export async function textFactsOf(
  contentHash: string,
  body: Buffer,
  kind: ExaminedKind,
  { minifies = true, rules }: ExamineOptions = {},
): Promise<TextFacts> {
  const nothing = { contentHash, bytes: body.length, embedded: { count: 0, bytes: 0 } };
  if (kind === 'font') {
    const font = { format: fontFormatOf(body), woff2: null, subsets: {} };
    return { ...nothing, gzip: body.length, brotli: body.length, minified: null, font };
  }
  const text = body.toString('utf8');
  const [zipped, smaller, minimal] = await Promise.all([
    gzipped(body),
    byBrotli(body, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: 5,
        [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
        [constants.BROTLI_PARAM_SIZE_HINT]: body.length,
      },
    }),
    minifies ? smallest(text, kind) : null,
  ]);
  return {
    ...nothing,
    gzip: zipped,
    brotli: smaller.length,
    minified: minimal === null ? null : await sizesOf(Buffer.from(minimal)),
    embedded: embeddedIn(text),
    ...(kind === 'style' && { units: text.length, rules: rules ?? styleRules(text) }),
    ...(kind === 'script' && { units: text.length, writes: writesIn(text) }),
  };
}

/** `null` for what cannot be read. */
function smallest(text: string, kind: Exclude<ExaminedKind, 'font'>): Promise<string | null> {
  return kind === 'vector' ? smallerVector(text).catch(() => null) : minified(text, kind);
}

async function gzipped(body: Buffer): Promise<number> {
  return (await byGzip(body, { level: 9 })).length;
}

async function sizesOf(body: Buffer): Promise<{ bytes: number; gzip: number }> {
  return { bytes: body.length, gzip: await gzipped(body) };
}

/** Shorter ones cost less than a request would. */
const embedded = /data:[a-z]+\/[\w.+-]{1,60}[;,][^"'()\s<>]{1000,}/gi;

function embeddedIn(text: string): TextFacts['embedded'] {
  const found = [...text.matchAll(embedded)];
  return { count: found.length, bytes: found.reduce((sum, [one]) => sum + one.length, 0) };
}

const maxWrites = 20;

/** Where a script calls `document.write`: the offsets of the first calls. */
function writesIn(text: string): number[] {
  return [...text.matchAll(/\bdocument\.write(?:ln)?\s*\(/g)]
    .slice(0, maxWrites)
    .map(({ index }) => index);
}
