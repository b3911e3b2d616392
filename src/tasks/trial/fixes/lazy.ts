import type { RequestChange, RequestChanges } from '../../../core/load/changed-model.js';
import { addressesOf, editDocuments } from './fix.js';
import type { Fix, PageLayout } from './fix.js';
import { giveAttributes } from './snippet-attributes.js';

/**
 * CSS pixels beyond the first screen up to which Chromium fetches lazy images at once, on all but slow lines: below it, and
 * to its right in something that scrolls. Found by trying.
 */
const reach = { down: 1_250, aside: 500 };

export const lazy: Fix = {
  name: 'lazy',
  title: 'images below the first screen load lazily',
  unit: 'element',
  isOfBytes: false,
  isUsual: () => true,
  apply: async (recording, tools) => {
    /** The addresses of each image that has become lazy. */
    const images: ReadonlySet<string>[] = [];
    const requests = (layout: PageLayout) => lazyRequests(images, layout);
    if (tools.refit) {
      const outcome = await giveAttributes(recording, tools, ['loading'], {
        onChange: (image, base) => {
          if (image.attribs['loading'] === 'lazy') images.push(addressesOf(image, base));
        },
      });
      return { ...outcome, requests };
    }
    const first = new Set(recording.run.firstScreen ?? []);
    const outcome = await editDocuments(recording, tools, (document, base) => {
      let changed = 0;
      for (const image of document.find('img:not([loading])')) {
        const addresses = addressesOf(image, base);
        if (addresses.size === 0 || [...addresses].some((one) => one === '' || first.has(one)))
          continue;
        document.setAttribute(image, 'loading', 'lazy');
        images.push(addresses);
        changed++;
      }
      return changed;
    });
    return { ...outcome, notes: [], requests };
  },
};

/** What is far down is not fetched by a load that is not scrolled; what is near, once the page is laid out. */
function lazyRequests(
  images: readonly ReadonlySet<string>[],
  { placements, view }: PageLayout,
): RequestChanges {
  const changes = new Map<string, RequestChange | 'gone'>();
  for (const { url, left, top } of placements) {
    if (!images.some((addresses) => addresses.has(url))) continue;
    const isFar = top > view.height + reach.down || left > view.width + reach.aside;
    // The same file may be shown further up as well.
    if (!isFar) changes.set(url, { isLazy: true });
    else if (!changes.has(url)) changes.set(url, 'gone');
  }
  return changes;
}
