import { timeText, bytesText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Pictures further down that begin to arrive before one of the first screen does. */
export const backwardsOrder: LoadCheck = ({ requests, firstScreen, network }) => {
  if (!firstScreen || firstScreen.size === 0) return undefined;
  const images = requests.filter(({ type, status }) => type === 'image' && status < 300);
  const arrives = ({ start, phases }: (typeof images)[number]) => start + phases.blocked;
  const waiting = images
    .filter(({ url }) => firstScreen.has(url))
    .reduce<(typeof images)[number] | undefined>(
      (last, image) => (last && arrives(last) >= arrives(image) ? last : image),
      undefined,
    );
  if (!waiting) return undefined;
  const ahead = images.filter(
    (image) => !firstScreen.has(image.url) && arrives(image) < arrives(waiting),
  );
  const bytes = ahead.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
  if (ahead.length === 0 || bytes < waiting.transferBytes / 4) return undefined;
  // On a line of known speed, what goes first takes its time away from what comes after it.
  const time = network && network.down > 0 ? (bytes * 8) / network.down : null;
  const taken = time === null ? '' : `, ${timeText(time)} of this line`;
  return {
    id: 'backwards-order',
    message: `${ahead.length} ${ahead.length === 1 ? 'picture' : 'pictures'} further down with ${bytesText(bytes)}${taken} go before this one of the first screen`,
    url: waiting.url,
    cost: null,
    late: false,
  };
};
