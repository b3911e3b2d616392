import pLimit from 'p-limit';
import { asWebFont, drawFont, letters } from '../font.js';
import { css, stylesheet, touch } from '../sin.js';
import type { ArchiveAnswer, Place, Sin } from '../sin.js';

/** A few characters more than are drawn: a font of hardly any is none to browsers. */
const few = 20;
const names = ['old', 'large', 'ahead', 'hiding', 'late', ...Array(6).keys()];
// One after another: the converter has one memory for all.
const inTurn = pLimit(1);
const made = (seed: number, characters: number, format: 'woff' | 'woff2') =>
  inTurn(() => asWebFont(drawFont(seed, characters), format));
const small = new Map(names.map((name, at) => [name, made(at + 1, few, 'woff2')] as const));
const woff = made(1, few, 'woff');
const large = made(2, 500, 'woff2');

const font = (body: Promise<Buffer>, type: 'woff' | 'woff2'): ArchiveAnswer => ({
  type: `font/${type}`,
  body,
});

const smallFont = (name: string | number) => font(small.get(name)!, 'woff2');

/** A line that has its place whatever it is drawn with: where a font comes late, what is below would move. */
const fixedLine = 'height:1.5em;line-height:1.5;white-space:nowrap;overflow:hidden';

/** A face, and a line that is drawn with it. */
function drawn(place: Place, name: string, url: string, display = 'swap') {
  const family = `${name} ${place.id}`;
  return {
    rule: `@font-face{font-family:"${family}";font-display:${display};src:url("${url}")}`,
    line: `<p style='font-family:"${family}";${fixedLine}'>${letters}</p>`,
  };
}

export const fontSins: readonly Sin[] = [
  {
    finding: 'old-font',
    fault: 'a font as WOFF',
    parts: (place, isMended) => {
      const url = place.file(isMended ? 'old.woff2' : 'old.woff');
      const { rule, line } = drawn(place, 'old', url);
      return {
        head: `<style>${rule}</style>`,
        body: line,
        files: { [url]: isMended ? smallFont('old') : font(woff, 'woff') },
      };
    },
  },
  {
    finding: 'font-characters',
    fault: 'a font with 500 characters that no page draws',
    parts: (place, isMended) => {
      const url = place.file('large.woff2');
      const { rule, line } = drawn(place, 'large', url);
      return {
        head: `<style>${rule}</style>`,
        body: line,
        files: { [url]: isMended ? smallFont('large') : font(large, 'woff2') },
      };
    },
  },
  {
    finding: 'font-preload',
    fault: 'a font preloaded without crossorigin',
    parts: (place, isMended) => {
      const url = place.file('ahead.woff2');
      const { rule, line } = drawn(place, 'ahead', url);
      const how = isMended ? ' crossorigin' : '';
      return {
        head: `<link rel="preload" as="font" type="font/woff2" href="${url}"${how}><style>${rule}</style>`,
        body: line,
        files: { [url]: smallFont('ahead') },
      };
    },
  },
  {
    finding: 'hidden-text',
    fault: 'a font that hides its text until it is there',
    parts: (place, isMended) => {
      const url = place.file('hiding.woff2');
      const { rule, line } = drawn(place, 'hiding', url, isMended ? 'swap' : 'block');
      return {
        head: `<style>${rule}</style>`,
        body: line,
        files: { [url]: smallFont('hiding') },
      };
    },
  },
];

/** On a page of their own: more fonts on the other would be many. */
export const posterSins: readonly Sin[] = [
  {
    finding: 'late-font',
    also: ['import-chain'],
    fault: 'a font that an imported style sheet declares',
    parts: (place, isMended) => {
      const [sheet, faces] = [place.file('letters.css'), place.file('faces.css')];
      const url = place.file('late.woff2');
      const { rule, line } = drawn(place, 'late', url);
      return {
        head: (isMended ? stylesheet(faces) : '') + stylesheet(sheet),
        body: line,
        files: {
          [sheet]: css((isMended ? '' : `@import url("${faces}");`) + touch(place, 'letters')),
          [faces]: css(rule),
          [url]: smallFont('late'),
        },
      };
    },
  },
  {
    finding: 'many-fonts',
    fault: 'six fonts for a line each',
    parts: (place, isMended) => {
      const urls = Array.from({ length: isMended ? 1 : 6 }, (_, at) =>
        place.file(`weight-${at}.woff2`),
      );
      const faces = urls.map((url, at) => drawn(place, `weight ${at}`, url));
      return {
        head: `<style>${faces.map(({ rule }) => rule).join('')}</style>`,
        body: faces.map(({ line }) => line).join(''),
        files: Object.fromEntries(urls.map((url, at) => [url, smallFont(at)])),
      };
    },
  },
];
