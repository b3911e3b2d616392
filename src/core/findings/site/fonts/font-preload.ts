import { addressAttribute, htmlCode } from '../../code.js';
import { pageFinding } from '../site-case.js';

/** A font that is preloaded in a way in which browsers cannot use it. */
export const fontPreload = pageFinding({
  id: 'font-preload',
  title: 'font preloaded without crossorigin',
  doer: 'markup',
  fix: 'Add crossorigin to the link that preloads the font, from the site’s own host as well.',
  isWork: true,
  docs: {
    meaning: 'A link preloads a font and has no attribute crossorigin.',
    why: 'Browsers ask for fonts without credentials, and cannot use what was preloaded with them: the font comes twice.',
    computed:
      'By the link in the document (HTML, section 4.6.7). The cost is the font on the wire.',
    ignore: 'Never.',
  },
  checkPage: ({ loads, files }) => {
    const hints = loads.flatMap(({ parts }) => parts.hints);
    const wrong = hints.filter(
      ({ rel, as, crossOrigin }) => rel === 'preload' && as === 'font' && !crossOrigin,
    );
    return [...new Set(wrong.map(({ url }) => url))].map((font) => {
      const file = files.find(({ resource }) => resource.url === font);
      const transferBytes = file?.resource.transferBytes ?? null;
      return { data: { font, transferBytes }, bytes: transferBytes, together: font };
    });
  },
  step: ({ font }) => `add crossorigin to the preload of ${font}`,
  code: ({ font }) =>
    htmlCode(`<link rel="preload" as="font" ${addressAttribute('href', font)} crossorigin>`),
  describe: ({ font, transferBytes }, { bytes }) =>
    `preloads ${font} without crossorigin: it comes twice${transferBytes === null ? '' : `, ${bytes(transferBytes)} each time`}`,
});
