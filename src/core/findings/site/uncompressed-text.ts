import { hostOf } from '../../address/address.js';
import { leastSaved, siteFinding } from './site-case.js';

/** A tenth more than gzip makes of it is within what servers do differently. */
const tolerance = 1.1;

/** A text that is sent as it is, or compressed much worse than gzip can. */
export const uncompressedText = siteFinding({
  id: 'uncompressed-text',
  title: 'text that is not compressed, or badly',
  doer: 'server',
  fix: 'Have the server compress texts with Brotli or gzip (content-encoding: br, gzip).',
  isWork: true,
  step: () => 'send it compressed',
  check: ({ resource, text }, { servedHere }) => {
    const { url, wireBytes, headers } = resource;
    if (!text || servedHere.has(hostOf(url)) || wireBytes === 0) return undefined;
    const encoding = headers['content-encoding'] ?? 'identity';
    const saved = wireBytes - Math.min(text.gzip, text.brotli);
    if (saved < leastSaved || wireBytes <= tolerance * text.gzip) return undefined;
    const data = { url, encoding, wireBytes, gzipBytes: text.gzip, brotliBytes: text.brotli };
    return { data, bytes: saved };
  },
  describe: ({ encoding, wireBytes, gzipBytes, brotliBytes }, { bytes }) =>
    `is sent ${encoding === 'identity' ? 'uncompressed' : `with content-encoding ${encoding}`} in ${bytes(wireBytes)}; gzip makes ${bytes(gzipBytes)} of it, Brotli ${bytes(brotliBytes)}`,
});
