import type { PageRequest } from '../../load/request.js';
import { loadFinding, sumOfBytes } from './load-case.js';

/** Pictures further down that start to arrive before one of the first screen does. */
export const backwardsOrder = loadFinding({
  id: 'backwards-order',
  title: 'images further down come first',
  doer: 'markup',
  fix: 'Make the images below the first screen lazy, and give the largest one fetchpriority="high".',
  isWork: false,
  docs: {
    meaning: 'Images further down come before those of the first screen.',
    why: 'The line is busy with what nobody sees yet.',
    computed: 'By the times of the requests and the first screen.',
    ignore: 'Where the first screen is done before.',
  },
  check: ({ requests, firstScreen, network }) => {
    if (!firstScreen || firstScreen.size === 0) return [];
    const images = requests.filter(({ type, status }) => type === 'image' && status < 300);
    const waiting = images
      .filter(({ url }) => firstScreen.has(url))
      .reduce<PageRequest | undefined>(
        (last, image) => (last && arrives(last) >= arrives(image) ? last : image),
        undefined,
      );
    if (!waiting) return [];
    const ahead = images.filter(
      (image) => !firstScreen.has(image.url) && arrives(image) < arrives(waiting),
    );
    const bytes = sumOfBytes(ahead);
    if (ahead.length === 0 || bytes < waiting.transferBytes / 4) return [];
    // On a network of known speed, what goes first takes its time away from what comes after it.
    const time = network && network.down > 0 ? (bytes * 8) / network.down : null;
    const data = { images: ahead.length, bytes, time };
    return [{ data, url: waiting.url, cost: null, late: false }];
  },
  describe: ({ images, bytes, time }, format) =>
    `is in the first screen, but ${format.count(images, 'image')} from further down with ${format.bytes(bytes)}${time === null ? '' : ` (${format.time(time)} on this network)`} ${images === 1 ? 'goes' : 'go'} first`,
});

function arrives({ start, phases }: PageRequest): number {
  return start + phases.blocked;
}
