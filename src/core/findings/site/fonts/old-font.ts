import { pathOf } from '../../../address/address.js';
import { cssCode, cssString } from '../../code.js';
import { fileFinding } from '../site-case.js';

/** A font in a format that is larger than WOFF2, which every browser of today reads. */
export const oldFont = fileFinding({
  id: 'old-font',
  title: 'font in an old format',
  doer: 'markup',
  fix: 'Offer the font as WOFF2, first in the src of its @font-face.',
  isWork: true,
  docs: {
    meaning: 'A font comes in another format than WOFF2.',
    why: 'WOFF2 is usually a third smaller than WOFF, and half of what it holds uncompressed.',
    computed:
      'By the first bytes of the file, or by its name and type where the file was not kept. The file is made into WOFF2 at the end of the survey; the cost is what is saved on the wire.',
    ignore: 'Where the licence of the font forbids to convert it.',
  },
  step: () => 'offer it as WOFF2',
  checkFile: ({ resource, text }) => {
    const { url, type, status, mediaType, wireBytes } = resource;
    if (type !== 'font' || status >= 400) return undefined;
    const format = text?.font?.format ?? formatOf(pathOf(url), mediaType);
    if (format === 'WOFF2') return undefined;
    const woff2Bytes = text?.font?.woff2 ?? null;
    const bytes = woff2Bytes === null ? null : Math.max(0, wireBytes - woff2Bytes);
    return { data: { url, format, wireBytes, woff2Bytes }, bytes };
  },
  code: ({ url }) => {
    const old = pathOf(url);
    return cssCode(
      `src: url(${cssString(old.replace(/(?:\.\w+)?(?:\?.*)?$/, '.woff2'))}) format("woff2"),`,
      `  url(${cssString(old)}); /* for old browsers alone */`,
    );
  },
  describe: ({ format, wireBytes, woff2Bytes }, { bytes }) =>
    `is ${format === null ? 'no WOFF2' : `a ${format} font`} of ${bytes(wireBytes)}; ${woff2Bytes === null ? 'WOFF2 is usually a third smaller than WOFF' : `as WOFF2 it has ${bytes(woff2Bytes)}`}`,
});

const named: readonly (readonly [pattern: RegExp, format: string])[] = [
  [/woff2/i, 'WOFF2'],
  [/woff/i, 'WOFF'],
  [/opentype|otf/i, 'OpenType'],
  [/truetype|ttf|sfnt/i, 'TrueType'],
  [/fontobject|eot/i, 'EOT'],
];

function formatOf(path: string, mediaType: string): string | null {
  // Servers often know no type for fonts: the ending says more.
  const ending = /\.(\w{2,5})$/.exec(path.split('?')[0]!)?.[1] ?? '';
  const of = (text: string) => named.find(([pattern]) => pattern.test(text))?.[1];
  return of(ending) ?? of(mediaType) ?? null;
}
