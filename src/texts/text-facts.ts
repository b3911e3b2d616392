import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import type { TextFacts } from '../core/survey/resource.js';

const byGzip = promisify(gzip);
const byBrotli = promisify(brotliCompress);

/** What can be made of a text: compressed, minified, without what is embedded in it. */
export async function textFactsOf(
  contentHash: string,
  body: Buffer,
  kind: 'html' | 'style' | 'script' | 'data',
): Promise<TextFacts> {
  const [zipped, smaller, minified] = await Promise.all([
    gzipped(body),
    byBrotli(body, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: 5,
        [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
        [constants.BROTLI_PARAM_SIZE_HINT]: body.length,
      },
    }),
    minify(body.toString('utf8'), kind),
  ]);
  return {
    contentHash,
    bytes: body.length,
    gzip: zipped,
    brotli: smaller.length,
    minified: minified === null ? null : await sizesOf(Buffer.from(minified)),
    embedded: embeddedIn(body.toString('latin1')),
  };
}

async function gzipped(body: Buffer): Promise<number> {
  return (await byGzip(body, { level: 9 })).length;
}

async function sizesOf(body: Buffer): Promise<{ bytes: number; gzip: number }> {
  return { bytes: body.length, gzip: await gzipped(body) };
}

/**
 * The text without what only people need; licences stay.
 *
 * @returns `null` for what no minifier is there for, and for what it cannot read
 */
async function minify(
  text: string,
  kind: 'html' | 'style' | 'script' | 'data',
): Promise<string | null> {
  if (kind === 'html') return null;
  // It runs beside this process; where it is missing that is no fault of the text.
  const { transform } = await import('esbuild');
  try {
    if (kind === 'data') return /^\s*[[{]/.test(text) ? JSON.stringify(JSON.parse(text)) : null;
    const { code } = await transform(text, {
      loader: kind === 'style' ? 'css' : 'js',
      ...{ minify: true, legalComments: 'inline', logLevel: 'silent', charset: 'utf8' },
    });
    return code;
  } catch {
    return null;
  }
}

/** Shorter ones cost less than a request would. */
const embedded = /data:[a-z]+\/[\w.+-]{1,60}[;,][^"'()\s<>]{1000,}/gi;

function embeddedIn(text: string): TextFacts['embedded'] {
  const found = [...text.matchAll(embedded)];
  return { count: found.length, bytes: found.reduce((sum, [one]) => sum + one.length, 0) };
}
