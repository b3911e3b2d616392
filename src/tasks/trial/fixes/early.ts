import { keptAddress } from '../../../core/address/address.js';
import { highRank } from '../../../core/load/load-model.js';
import { editDocuments, resolved } from './fix.js';
import type { Fix } from './fix.js';

export const early: Fix = {
  name: 'early',
  title: 'the largest picture loads early, with priority',
  unit: 'element',
  isOfBytes: false,
  isUsual: () => true,
  apply: async (recording, tools) => {
    const { largest } = recording.run;
    const address = largest?.url;
    if (address == null)
      return { recording, changed: 0, notes: ['the largest contentful paint is no picture'] };
    let isNamed = false;
    const outcome = await editDocuments(recording, tools, (document, base) => {
      if (base !== recording.run.finalUrl) return 0;
      const [element] = largest!.selector === '' ? [] : document.find(largest!.selector);
      const byAddress = document
        .find('img[src]')
        .find(({ attribs }) => keptAddress(resolved(attribs['src'], base)) === address);
      const image = element?.name === 'img' ? element : byAddress;
      const before = document.count;
      if (image) {
        // The browser has known of it from the beginning, unless it waited for it to come near.
        isNamed = image.attribs['loading'] !== 'lazy';
        document.setAttribute(image, 'loading', null);
        document.setAttribute(image, 'fetchpriority', 'high');
      } else {
        const href = address.replaceAll('&', '&amp;').replaceAll('"', '&quot;');
        document.prependToHead(
          `<link rel="preload" as="image" href="${href}" fetchpriority="high">`,
        );
      }
      return document.count > before ? 1 : 0;
    });
    const change = { rank: highRank, ...(!isNamed && { isKnownAtOnce: true as const }) };
    return { ...outcome, notes: [], requests: () => new Map([[address, change]]) };
  },
};
