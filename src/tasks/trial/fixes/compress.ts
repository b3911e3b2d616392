import { withHeader } from '../../../core/trial/recording.js';
import { wireBody } from '../../../replay/wire-body.js';
import { changeEach, hasBody } from './fix.js';
import type { Fix } from './fix.js';

/** A shorter text fits into one packet as it is. */
const leastBytes = 1_400;

const isText = /^text\/|javascript|json|\bxml\b|\+xml|image\/svg|application\/manifest/;

export const compress: Fix = {
  name: 'compress',
  title: 'texts are compressed (brotli over TLS, else gzip)',
  unit: 'file',
  isOfBytes: true,
  isUsual: () => true,
  apply: async (recording, { read }) => {
    const outcome = await changeEach(
      recording,
      (response) =>
        hasBody(response) &&
        response.encoding === 'identity' &&
        response.bodyBytes >= leastBytes &&
        isText.test(response.request.mediaType),
      async (response) => {
        // Browsers accept brotli over TLS only.
        const encoding = response.request.url.startsWith('https:') ? 'br' : 'gzip';
        const { length } = await wireBody(await read(response.bodyHash!), encoding, 0);
        if (length >= response.bodyBytes) return null;
        const told = withHeader(response, 'vary', 'accept-encoding');
        return {
          ...withHeader(told, 'content-length', String(length)),
          encoding,
          wireBytes: length,
        };
      },
    );
    return { ...outcome, notes: [] };
  },
};
