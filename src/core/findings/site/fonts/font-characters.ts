import { fileFinding } from '../site-case.js';

/** Less than this, in bytes, is not worth keeping another file. */
const leastSaved = 5_000;
const leastShare = 0.3;

/** A font with many more characters than the pages draw. */
export const fontCharacters = fileFinding({
  id: 'font-characters',
  title: 'font with characters that no page needs',
  doer: 'markup',
  fix: 'Make a subset of the font with the characters of the site’s languages.',
  isWork: true,
  docs: {
    meaning: 'A font file holds many more characters than the pages of the survey draw with it.',
    why: 'Text waits for all of the file.',
    computed:
      'The characters that all pages draw with the font are collected, and a subset with these alone is made as WOFF2 at the end of the survey. The cost is what the font has as WOFF2 more than that, from 5 kB and 30 %.',
    ignore:
      'Where visitors write text, or pages change often: then take whole languages, not characters.',
  },
  step: () => 'make a subset with the characters of the site’s languages',
  checkFile: ({ resource: { url, type, thirdParty, contentHash }, text }, site) => {
    const font = text?.font;
    if (type !== 'font' || thirdParty || !font || contentHash === null) return undefined;
    const characters = site.charactersOf(contentHash);
    const subsetBytes = font.subsets[characters];
    if (subsetBytes === undefined || font.woff2 === null) return undefined;
    const saved = font.woff2 - subsetBytes;
    if (saved < leastSaved || saved < leastShare * font.woff2) return undefined;
    const data = {
      url,
      characters: [...characters].length,
      woff2Bytes: font.woff2,
      subsetBytes,
    };
    return { data, bytes: saved };
  },
  describe: ({ characters, woff2Bytes, subsetBytes }, { bytes, count }) =>
    `has ${bytes(woff2Bytes)} as WOFF2; with the ${count(characters, 'character')} that the pages draw it would have ${bytes(subsetBytes)}`,
});
