import { pageFinding } from '../site-case.js';

/** Fonts that a page may need. */
const allowed = 4;

/** A page that is sent many font files. */
export const manyFonts = pageFinding({
  id: 'many-fonts',
  title: 'many fonts on a page',
  doer: 'markup',
  fix: 'Do with fewer weights and families, or use one variable font.',
  isWork: false,
  docs: {
    meaning: 'A page is sent more than four font files.',
    why: 'They compete with what else the page needs first, and text waits for each.',
    computed: 'By the fonts that were sent to the page in any view.',
    ignore: 'Where the fonts are parts of one (unicode-range) for languages of many characters.',
  },
  checkPage: ({ files }) => {
    const fonts = files.filter(({ resource: { type, status } }) => type === 'font' && status < 400);
    if (fonts.length <= allowed) return [];
    const fontBytes = fonts.reduce((sum, { resource }) => sum + resource.transferBytes, 0);
    return [{ data: { count: fonts.length, fontBytes, allowed }, bytes: null }];
  },
  describe: ({ count: fonts, fontBytes, allowed: most }, { bytes, count }) =>
    `is sent ${count(fonts, 'font')} with ${bytes(fontBytes)}; ${most} are usually enough`,
});
