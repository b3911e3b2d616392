import { editDocuments } from './fix.js';
import type { Fix } from './fix.js';

export const stylesFirst: Fix = {
  name: 'styles-first',
  title: 'style sheets stand ahead of the scripts of the head',
  unit: 'element',
  isOfBytes: false,
  isUsual: () => false,
  apply: async (recording, tools) => {
    const outcome = await editDocuments(recording, tools, (document) => {
      const [first] = document.find('head script:not([async]):not([defer])');
      if (!first) return 0;
      const all = document.find(
        'head script:not([async]):not([defer]), head link[rel~="stylesheet"]',
      );
      const late = all.slice(all.indexOf(first)).filter(({ name }) => name === 'link');
      document.surround(first, late.map((link) => document.textOf(link)).join('\n'), '');
      for (const link of late) document.replace(link, '');
      return late.length;
    });
    return { ...outcome, notes: [] };
  },
};
