import { fileFinding, leastSaved } from '../site-case.js';

/** Less than this part is not worth a step of the build. */
const leastShare = 0.05;

/** A document, a style sheet, a script, a vector image or data with comments and white space that only people need. */
export const unminifiedText = fileFinding({
  id: 'unminified-text',
  title: 'text that is not minified',
  doer: 'markup',
  fix: 'Minify documents, style sheets, scripts, vector images and JSON when the site is built or published.',
  isWork: true,
  docs: {
    meaning: 'A text has comments, white space and long names that only people need.',
    why: 'They are sent and read on each first visit, and compression does not take all of them out.',
    computed:
      'Style sheets and scripts are minified by esbuild (licences stay), documents by minify-html (white space, comments, tags that may be left out), vector images by svgo (what nobody sees; names of parts stay), JSON by writing it again. The cost is what gzip makes of the text less what it makes of the minified one, from 1 kB and a twentieth.',
    ignore: 'On pages that people are meant to read the source of.',
  },
  step: () => 'minify it when the site is built or published',
  checkFile: ({ resource: { url }, text }) => {
    if (!text?.minified) return undefined;
    const { bytes, gzip, minified } = text;
    // Minifying counts with what compression leaves: it is the other finding that takes the rest.
    const saved = gzip - minified.gzip;
    if (saved < leastSaved || saved < leastShare * gzip) return undefined;
    const data = {
      url,
      textBytes: bytes,
      minifiedBytes: minified.bytes,
      gzipBytes: gzip,
      minifiedGzipBytes: minified.gzip,
    };
    return { data, bytes: saved };
  },
  describe: ({ textBytes, minifiedBytes, gzipBytes, minifiedGzipBytes }, { bytes }) =>
    `is not minified: ${bytes(textBytes)} would be ${bytes(minifiedBytes)} (compressed by gzip, ${bytes(gzipBytes)} would be ${bytes(minifiedGzipBytes)})`,
});
