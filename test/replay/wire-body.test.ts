import {
  brotliCompressSync,
  brotliDecompressSync,
  constants,
  gunzipSync,
  gzipSync,
  inflateSync,
} from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { wireBody } from '../../src/replay/wire-body.js';

const text = Buffer.from(
  Array.from({ length: 4_000 }, (_, at) => `.kite-${(at * 7919) % 977} { left: ${at}px }`).join(
    '\n',
  ),
);

describe('a body on the wire', () => {
  it('is what it was, whatever it is encoded with', async () => {
    expect(gunzipSync(await wireBody(text, 'gzip', 0))).toEqual(text);
    expect(inflateSync(await wireBody(text, 'deflate', 0))).toEqual(text);
    expect(brotliDecompressSync(await wireBody(text, 'br', 0))).toEqual(text);
    expect(await wireBody(text, 'identity', 0)).toBe(text);
  });

  it('weighs what it weighed when it was recorded', async () => {
    for (const level of [1, 4, 6, 9]) {
      const sent = gzipSync(text, { level }).length;
      expect((await wireBody(text, 'gzip', sent)).length).toBe(sent);
    }
    for (const level of [1, 4, 5, 6, 11]) {
      const params = { [constants.BROTLI_PARAM_QUALITY]: level };
      const sent = brotliCompressSync(text, { params }).length;
      const again = (await wireBody(text, 'br', sent)).length;
      expect(Math.abs(again - sent)).toBeLessThanOrEqual(sent * 0.01);
    }
  });
});
