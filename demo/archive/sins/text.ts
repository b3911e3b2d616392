import { css, digits, js, stylesheet } from '../sin.js';
import type { Sin } from '../sin.js';

const lines = (count: number, of: (at: number) => string): string =>
  Array.from({ length: count }, (_, at) => of(at)).join('\n');

/** Custom properties: style rules of any length that always match. */
const properties = (id: string, count: number): string =>
  `html{${lines(count, (at) => `--kite-${at}:"${'over the bay '.repeat(4)}${id}";`)}}`;

const embedded = `data:image/png;base64,${'A'.repeat(9_200)}`;

export const textSins: readonly Sin[] = [
  {
    finding: 'uncompressed-text',
    fault: 'a style sheet sent as it is',
    parts: (place, isMended) => {
      const url = place.file('plain.css');
      return {
        head: stylesheet(url),
        files: { [url]: css(properties(place.id, 120), { isPlain: !isMended }) },
      };
    },
  },
  {
    finding: 'unminified-text',
    fault: 'a script with all its comments',
    parts: (place, isMended) => {
      const url = place.file('talkative.js');
      const talk = (at: number) => `// ${digits(`${place.id} ${at}`)}\n`;
      const body = lines(80, (at) => `${isMended ? '' : talk(at)}globalThis.wind=${at};`);
      return { body: `<script src="${url}" defer></script>`, files: { [url]: js(body) } };
    },
  },
  {
    finding: 'embedded-data',
    fault: 'a picture as data: in a style sheet',
    parts: (place, isMended) => {
      const url = place.file('embedded.css');
      const picture = place.file('sail.svg');
      const body = `body{background:url("${isMended ? picture : embedded}") no-repeat}`;
      const sail =
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 9L5 0l4 9z"/></svg>';
      return {
        head: stylesheet(url),
        files: { [url]: css(body), [picture]: { type: 'image/svg+xml', body: sail } },
      };
    },
  },
  {
    finding: 'large-document',
    fault: 'over 200 kB of markup',
    parts: (_, isMended) => ({
      body: isMended ? '' : `<p hidden>${'Kites, wind and rain. '.repeat(10_000)}</p>`,
    }),
  },
];
