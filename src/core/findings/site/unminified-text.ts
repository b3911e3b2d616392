import { leastSaved, siteFinding } from './site-case.js';

/** Less than this part is not worth a step of the build. */
const leastShare = 0.05;

/** A style sheet, a script or data with comments and white space that only people need. */
export const unminifiedText = siteFinding({
  id: 'unminified-text',
  title: 'styles, scripts or data that are not minified',
  doer: 'markup',
  fix: 'Minify style sheets, scripts and JSON when the site is built or published.',
  isWork: true,
  step: () => 'minify it when the site is built or published',
  check: ({ resource: { url }, text }) => {
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
