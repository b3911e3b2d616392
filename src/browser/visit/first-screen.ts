import type { Channel } from '../chromium/channel.js';
import type { View } from '../../core/visitors/view.js';

/** Pixels of the longer side of a picture. */
const longest = 480;
/** Enough to know a page by; they are many. */
const quality = 45;

/** The first screen of a page that is scrolled to its top, as WebP; `null` where the browser gives none. */
export async function firstScreenPicture(
  cdp: Channel,
  { width, height, density }: View,
): Promise<Uint8Array | null> {
  // The browser multiplies by the density of the screen.
  const scale = longest / Math.max(width, height) / density;
  try {
    const { data } = await cdp.send('Page.captureScreenshot', {
      ...{ format: 'webp', quality, optimizeForSpeed: true },
      clip: { x: 0, y: 0, width, height, scale },
    });
    return Buffer.from(data, 'base64');
  } catch {
    return null;
  }
}
