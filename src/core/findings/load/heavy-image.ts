import { timeText, bytesText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Receiving it for longer than this is felt. */
const longReceive = 300;

/** An image that is long on its way: too many bytes, and what they would come to at its need. */
export const heavyImage: LoadCheck = ({ requests, neededBytes, usable }) =>
  requests
    .filter(({ type, phases }) => type === 'image' && phases.receive >= longReceive)
    .map(({ url, phases, transferBytes, start }) => {
      const needed = neededBytes(url);
      const saved =
        needed === undefined || needed >= transferBytes
          ? null
          : phases.receive * (1 - needed / transferBytes);
      const instead =
        saved === null
          ? ''
          : `; at its need it has ${bytesText(needed!)} and saves ${timeText(saved)}`;
      return {
        id: 'heavy-image',
        message: `${bytesText(transferBytes)} take ${timeText(phases.receive)} to receive${instead}`,
        url,
        cost: saved,
        late: usable !== null && start >= usable,
      };
    });
