import { hostOf } from '../../../address/address.js';
import { fileFinding, leastSaved } from '../site-case.js';

/** A tenth more than gzip makes of it is within what servers do differently. */
const tolerance = 1.1;

/** A text that is sent as it is, or compressed much worse than gzip can. */
export const uncompressedText = fileFinding({
  id: 'uncompressed-text',
  title: 'text that is not compressed, or badly',
  doer: 'server',
  fix: 'Have the server compress texts with Brotli or gzip (content-encoding: br, gzip).',
  isWork: true,
  docs: {
    meaning:
      'A document, style sheet, script, vector image or data is sent as it is, or more than a tenth larger than gzip makes it.',
    why: 'Texts shrink to a third or a quarter, and browsers undo it in no time.',
    computed:
      'The body is compressed by gzip (level 9) and Brotli (quality 5, which servers manage as they go). The cost is its bytes on the wire less the smaller of the two, from 1 kB.',
    ignore: 'Where secrets stand beside what visitors send in one response (BREACH attacks).',
  },
  step: () => 'send it compressed',
  checkFile: ({ resource, text }, { servedHere }) => {
    const { url, wireBytes, headers } = resource;
    if (!text || text.font || servedHere.has(hostOf(url)) || wireBytes === 0) return undefined;
    const encoding = headers['content-encoding'] ?? 'identity';
    const saved = wireBytes - Math.min(text.gzip, text.brotli);
    if (saved < leastSaved || wireBytes <= tolerance * text.gzip) return undefined;
    const data = { url, encoding, wireBytes, gzipBytes: text.gzip, brotliBytes: text.brotli };
    return { data, bytes: saved };
  },
  describe: ({ encoding, wireBytes, gzipBytes, brotliBytes }, { bytes }) =>
    `is sent ${encoding === 'identity' ? 'uncompressed' : `with content-encoding ${encoding}`} in ${bytes(wireBytes)}; gzip makes ${bytes(gzipBytes)} of it, Brotli ${bytes(brotliBytes)}`,
});
