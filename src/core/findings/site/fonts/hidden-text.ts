import { cssCode, cssString } from '../../code.js';
import { pageFinding } from '../site-case.js';

/** Text that is not shown while its font is on its way. */
export const hiddenText = pageFinding({
  id: 'hidden-text',
  title: 'text hidden until its font has come',
  doer: 'markup',
  fix: 'Write font-display: swap (or optional) into the @font-face rule.',
  isWork: true,
  docs: {
    meaning: 'A page draws with a font whose font-display is auto or block.',
    why: 'Browsers hide the text for up to three seconds while the font is on its way.',
    computed:
      'By the @font-face rules of the fonts that a page draws with (CSS Fonts 4, section 11).',
    ignore: 'For fonts of icons, whose letters mean nothing in another font.',
  },
  checkPage: ({ loads }) => {
    const faces = loads.flatMap(({ parts }) => parts.fontFaces);
    const hiding = faces.filter(({ used, display }) => used && /^(?:auto|block)$/.test(display));
    const families = [...new Set(hiding.map(({ family }) => family))].slice(0, 20);
    return families.length === 0 ? [] : [{ data: { families }, bytes: null }];
  },
  step: ({ families }) => `write font-display: swap for ${families.join(', ')}`,
  code: ({ families }) =>
    cssCode(
      ...families.map(
        (family) =>
          `@font-face { font-family: ${cssString(family)}; font-display: swap; /* and what it has */ }`,
      ),
    ),
  describe: ({ families }) =>
    `hides the text in ${families.join(', ')} until the font has come (font-display)`,
});
