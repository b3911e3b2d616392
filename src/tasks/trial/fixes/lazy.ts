import { keptAddress } from '../../../core/address/address.js';
import { parseSrcset } from '../../../core/slots/srcset.js';
import { editDocuments, resolved } from './fix.js';
import type { Fix } from './fix.js';
import { giveAttributes } from './snippet-attributes.js';

export const lazy: Fix = {
  name: 'lazy',
  title: 'images below the first screen load lazily',
  unit: 'element',
  isOfBytes: false,
  isUsual: () => true,
  apply: async (recording, tools) => {
    if (tools.refit) return giveAttributes(recording, tools, ['loading']);
    const first = new Set(recording.run.firstScreen ?? []);
    const outcome = await editDocuments(recording, tools, (document, base) => {
      let changed = 0;
      for (const image of document.find('img:not([loading])')) {
        const { src, srcset = '' } = image.attribs;
        const named = [src, ...parseSrcset(srcset).map(({ url }) => url)];
        const addresses = named.map((address) => keptAddress(resolved(address, base)));
        if (addresses.some((address) => address === '' || first.has(address))) continue;
        document.setAttribute(image, 'loading', 'lazy');
        changed++;
      }
      return changed;
    });
    return { ...outcome, notes: [] };
  },
};
