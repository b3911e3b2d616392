import { pageFinding } from '../site-case.js';
import type { SiteCase } from '../site-case.js';

/** Fonts that style sheets declare and no page of the survey draws with. */
export const unusedFont = pageFinding({
  id: 'unused-font',
  title: 'fonts that are declared and not used',
  doer: 'markup',
  fix: 'Remove the @font-face rules, and the files.',
  isWork: true,
  docs: {
    meaning: 'A @font-face rule declares a font that no page of the survey draws with.',
    why: 'The rule is read on each page, and one letter in that style loads the whole file.',
    computed:
      'By the state of each font after a page was scrolled; fonts for a part of all characters (unicode-range) are not judged. It has no cost of its own as long as the font is not loaded.',
    ignore: 'Where it is for text that visitors write, or for pages that were not surveyed.',
  },
  checkPage: ({ loads }, site) => {
    const used = usedFaces(site);
    const faces = loads.flatMap(({ parts }) => parts.fontFaces);
    const idle = faces.filter(({ isPart, urls }) => !isPart && !urls.some((url) => used.has(url)));
    const families = [...new Set(idle.map(({ family }) => family))].slice(0, 20);
    const count = new Set(idle.map(({ urls }) => urls[0])).size;
    return count === 0 ? [] : [{ data: { families, count }, bytes: null }];
  },
  step: ({ families }) => `remove the @font-face rules of ${families.join(', ')}`,
  describe: ({ families, count: faces }, { count }) =>
    `has ${count(faces, 'font')} declared that no page draws with: ${families.join(', ')}`,
});

const known = new WeakMap<SiteCase, ReadonlySet<string>>();

/** Addresses of the fonts that any page draws with. */
function usedFaces(site: SiteCase): ReadonlySet<string> {
  const before = known.get(site);
  if (before) return before;
  const faces = site.pages.flatMap(({ loads }) => loads.flatMap(({ parts }) => parts.fontFaces));
  const used = new Set(faces.filter(({ used: drawn }) => drawn).flatMap(({ urls }) => urls));
  known.set(site, used);
  return used;
}
