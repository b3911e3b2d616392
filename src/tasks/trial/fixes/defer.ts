import { keptAddress } from '../../../core/address/address.js';
import { editDocuments, resolved } from './fix.js';
import type { Fix } from './fix.js';

export const defer: Fix = {
  name: 'defer',
  title: 'scripts in the head wait for the document (defer)',
  unit: 'element',
  isOfBytes: false,
  isUsual: () => false,
  apply: async (recording, tools) => {
    let after = 0;
    const deferred = new Set<string>();
    const outcome = await editDocuments(recording, tools, (document, base) => {
      const scripts = document.find(
        'head script[src]:not([async]):not([defer]):not([type="module"])',
      );
      for (const script of scripts) {
        document.setAttribute(script, 'defer', '');
        deferred.add(keptAddress(resolved(script.attribs['src'], base)));
      }
      if (scripts.length > 0) after += document.find('script:not([src])').length;
      return scripts.length;
    });
    const notes =
      after > 0
        ? [
            'scripts inside the document now run before the deferred ones: check that none needs them',
          ]
        : [];
    const change = { isDeferred: true } as const;
    const requests = () => new Map([...deferred].map((url) => [url, change]));
    return { ...outcome, notes, requests };
  },
};
