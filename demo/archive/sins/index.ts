import type { Sin } from '../sin.js';
import { cachingSins, lifetimeSins } from './caching.js';
import { connectionSins } from './connection.js';
import { fontSins, posterSins } from './fonts.js';
import { orderSins } from './order.js';
import { serviceSins } from './services.js';
import { textSins } from './text.js';
import { shiftSins, threadSins } from './thread.js';
import { useSins } from './use.js';
import { videoSins } from './video.js';

/** What is wrong on each page of the archive, by the name of the page. */
export const sinsByPage: Readonly<Record<string, readonly Sin[]>> = {
  texts: textSins,
  leftovers: useSins,
  order: orderSins,
  caches: cachingSins,
  kept: lifetimeSins,
  servers: connectionSins,
  partners: serviceSins,
  busy: threadSins,
  moving: shiftSins,
  letters: fontSins,
  posters: posterSins,
  films: videoSins,
};

export const sins: readonly Sin[] = Object.values(sinsByPage).flat();
