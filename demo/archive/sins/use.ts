import { css, digits, js, mark, stylesheet, touch } from '../sin.js';
import type { Place, Sin } from '../sin.js';

const many = (count: number, of: (at: number) => string): string =>
  Array.from({ length: count }, (_, at) => of(at)).join('');

const rules = (place: Place, count: number): string =>
  many(count, (at) => `.k${digits(`${place.id} ${at}`).slice(0, 12)}{margin-left:${at}px}`);

const functions = (place: Place, count: number): string =>
  many(count, (at) => {
    const name = digits(`${place.id} f ${at}`).slice(0, 12);
    return `function k${name}(){return"${name}"}`;
  });

export const useSins: readonly Sin[] = [
  {
    finding: 'unused-style',
    fault: 'a style sheet of another site, of which hardly a rule is used',
    parts: (place, isMended) => {
      const url = place.file('borrowed.css');
      const body = touch(place, 'borrowed') + (isMended ? '' : rules(place, 400));
      return { head: stylesheet(url), files: { [url]: css(body) } };
    },
  },
  {
    finding: 'unused-script',
    fault: 'a library of which one function is called',
    parts: (place, isMended) => {
      const url = place.file('library.js');
      const body = mark(place, 'library') + (isMended ? '' : functions(place, 400));
      return { body: `<script src="${url}" defer></script>`, files: { [url]: js(body) } };
    },
  },
  {
    finding: 'unused-preload',
    fault: 'a preload of a style sheet that nobody links to',
    parts: (place, isMended) => {
      const url = place.file('forgotten.css');
      return {
        head: `<link rel="preload" as="style" href="${url}">${isMended ? stylesheet(url) : ''}`,
        files: { [url]: css(touch(place, 'forgotten')) },
      };
    },
  },
  {
    finding: 'unused-preconnect',
    fault: 'a preconnect to a host that sends nothing',
    parts: (place, isMended) => ({
      head: isMended ? '' : `<link rel="preconnect" href="${place.file('', 'idle')}">`,
    }),
  },
  {
    finding: 'unused-font',
    fault: 'a font that is declared and not drawn with',
    parts: (place, isMended) => {
      const face = `@font-face{font-family:"Rain ${place.id}";font-display:swap;src:url(${place.file('rain.woff2')})}`;
      return { head: isMended ? '' : `<style>${face}</style>` };
    },
  },
];
