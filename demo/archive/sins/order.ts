import { css, js, mark, stylesheet, touch } from '../sin.js';
import type { Sin } from '../sin.js';

export const orderSins: readonly Sin[] = [
  {
    finding: 'blocking-script',
    fault: 'a script in the head that everything waits for',
    parts: (place, isMended) => {
      const url = place.file('first.js');
      return {
        head: `<script src="${url}"${isMended ? ' defer' : ''}></script>`,
        files: { [url]: js(mark(place, 'first')) },
      };
    },
  },
  {
    finding: 'import-chain',
    fault: 'a style sheet that another one imports',
    parts: (place, isMended) => {
      const [outer, inner] = [place.file('outer.css'), place.file('inner.css')];
      const start = isMended ? '' : `@import url("${inner}");`;
      return {
        head: (isMended ? stylesheet(inner) : '') + stylesheet(outer),
        files: {
          [outer]: css(start + touch(place, 'outer')),
          [inner]: css(touch(place, 'inner')),
        },
      };
    },
  },
  {
    finding: 'many-files',
    fault: 'two dozen style sheets of a line each',
    parts: (place, isMended) => {
      const parts = Array.from({ length: 24 }, (_, at) => touch(place, `part-${at}`));
      const sheets = isMended ? [parts.join('')] : parts;
      const files = sheets.map((body, at) => [place.file(`part-${at}.css`), css(body)] as const);
      return {
        head: files.map(([url]) => stylesheet(url)).join(''),
        files: Object.fromEntries(files),
      };
    },
  },
  {
    finding: 'late-style',
    also: ['blocking-script'],
    fault: 'a style sheet after a script',
    parts: (place, isMended) => {
      const [script, sheet] = [place.file('before.js'), place.file('after.css')];
      const [first, second] = [`<script src="${script}"></script>`, stylesheet(sheet)];
      const deferred = `<script src="${script}" defer></script>`;
      return {
        head: isMended ? second + deferred : first + second,
        files: {
          [script]: js(mark(place, 'before')),
          [sheet]: css(touch(place, 'after')),
        },
      };
    },
  },
  {
    finding: 'document-write',
    fault: 'a counter that is written into the document',
    parts: (_, isMended) => ({
      body: isMended
        ? '<p>Kites: 41</p>'
        : '<script>document.write("<p>Kites: " + 41 + "</p>");</script>',
    }),
  },
];
