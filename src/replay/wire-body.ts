import { promisify } from 'node:util';
import { brotliCompress, constants, deflate, gzip } from 'node:zlib';
import type { ContentEncoding } from '../core/trial/recording.js';

const byGzip = promisify(gzip);
const byDeflate = promisify(deflate);
const byBrotli = promisify(brotliCompress);

/** The levels that servers use, the most usual first. */
const levels: Readonly<Record<'gzip' | 'deflate' | 'br', readonly number[]>> = {
  gzip: [6, 9, 1, 4],
  deflate: [6, 9, 1],
  br: [5, 11, 4, 6, 1],
};

/** The share by which a body may miss the bytes that are wanted, to be taken without trying other levels. */
const near = 0.001;
/** Of larger bodies, the best level of brotli takes seconds. */
const maxForBest = 2_000_000;

const compress: Readonly<
  Record<'gzip' | 'deflate' | 'br', (body: Buffer, level: number) => Promise<Buffer>>
> = {
  gzip: (body, level) => byGzip(body, { level }),
  deflate: (body, level) => byDeflate(body, { level }),
  br: (body, level) =>
    byBrotli(body, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: level,
        [constants.BROTLI_PARAM_SIZE_HINT]: body.length,
      },
    }),
};

/**
 * A body as it is sent: compressed again, at the level that comes nearest to the bytes that it had. The browser tells only
 * what it made of them.
 *
 * @param wanted bytes on the wire
 */
export async function wireBody(
  body: Buffer,
  encoding: ContentEncoding,
  wanted: number,
): Promise<Buffer> {
  if (encoding === 'identity') return body;
  let best: Buffer | undefined;
  for (const level of levels[encoding]) {
    if (level > 9 && body.length > maxForBest) continue;
    const made = await compress[encoding](body, level);
    if (!best || Math.abs(made.length - wanted) < Math.abs(best.length - wanted)) best = made;
    if (Math.abs(best.length - wanted) <= wanted * near) break;
  }
  return best!;
}
