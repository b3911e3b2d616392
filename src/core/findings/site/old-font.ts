import { pathOf } from '../../address/address.js';
import { siteFinding } from './site-case.js';

/** A font in a format that is larger than WOFF2, which every browser of today reads. */
export const oldFont = siteFinding({
  id: 'old-font',
  title: 'font in an old format',
  doer: 'markup',
  fix: 'Offer the font as WOFF2, first in the src of its @font-face.',
  isWork: true,
  step: () => 'offer it as WOFF2',
  check: ({ resource }) => {
    const { url, type, status, mediaType, transferBytes } = resource;
    if (type !== 'font' || status >= 400) return undefined;
    const format = formatOf(pathOf(url), mediaType);
    return format === 'WOFF2' ? undefined : { data: { url, format, transferBytes }, bytes: null };
  },
  describe: ({ format, transferBytes }, { bytes }) =>
    `is ${format === null ? 'no WOFF2' : `a ${format} font`} of ${bytes(transferBytes)}; WOFF2 is usually a third smaller than WOFF`,
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
