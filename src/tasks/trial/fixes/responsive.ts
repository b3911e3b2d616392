import { editDocuments } from './fix.js';
import type { Fix } from './fix.js';
import { absentNote, addRules, imageOf } from './snippet-attributes.js';

export const responsive: Fix = {
  name: 'responsive',
  title: 'srcset, sizes and formats of images, as the refit has them',
  unit: 'element',
  isOfBytes: false,
  isUsual: ({ refit }) => refit !== null,
  apply: async (recording, tools) => {
    const { snippets = [], rules = '' } = tools.refit ?? {};
    let absent = 0;
    const outcome = await editDocuments(recording, tools, (document, url) => {
      let changed = 0;
      for (const { selector, text } of snippets.filter(({ page }) => page === url)) {
        const [element] = document.find(selector);
        const image = imageOf(text);
        if (!image) continue;
        if (element?.name !== 'img') {
          absent++;
          continue;
        }
        const before = document.count;
        const [start, end] = aroundImage(text);
        const { parent } = element;
        const inPicture = parent && 'name' in parent && parent.name === 'picture';
        if (inPicture) {
          for (const source of document.find('picture > source'))
            if (source.parent === parent) document.replace(source, '');
          document.surround(element, start.replace(/^\s*<picture[^>]*>/i, ''), '');
        } else if (start !== '') document.surround(element, start, end);
        for (const name of ['src', 'srcset', 'sizes'])
          document.setAttribute(element, name, image[name] ?? null);
        if (document.count > before) changed++;
      }
      if (changed > 0) addRules(document, rules);
      return changed;
    });
    return { ...outcome, notes: absentNote(absent) };
  },
};

/** What a snippet has ahead of its `<img>`, and behind it. */
function aroundImage(text: string): [start: string, end: string] {
  const from = text.search(/<img\b/i);
  const close = /<\/picture>\s*$/i.exec(text);
  return from > 0 && close ? [text.slice(0, from), close[0]] : ['', ''];
}
