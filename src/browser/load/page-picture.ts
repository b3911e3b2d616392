import { setTimeout as pause } from 'node:timers/promises';
import type { View } from '../../core/visitors/view.js';
import type { Channel } from '../chromium/channel.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';

/** The greatest height that is drawn of a page, in CSS pixels. */
const maxHeight = 10_000;
/** Milliseconds to wait for pictures further down once they are scrolled to. */
const patience = 4_000;

/** The most drawings until two are the same; a page that moves never is. */
const maxRounds = 4;
const betweenRounds = 200;

/**
 * Draws a whole page, lazy pictures included, a pixel to a CSS pixel. It scrolls the page and takes its line and
 * processor out of their shape: nothing may be timed after it.
 *
 * @returns a PNG file
 */
export async function takePicture(
  cdp: Channel,
  world: IsolatedWorld,
  { width, density }: Pick<View, 'width' | 'density'>,
): Promise<Buffer> {
  await cdp.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await world.call('scrollThrough', 0, 0);
  await world.call('hurryImages');
  await world.settleImages(patience);
  await world.call('decodeImages', patience);
  const { cssContentSize } = await cdp.send('Page.getLayoutMetrics');
  const height = Math.max(1, Math.min(maxHeight, Math.ceil(cssContentSize.height)));
  const draw = async () => {
    const { data } = await cdp.send('Page.captureScreenshot', {
      format: 'png',
      clip: { x: 0, y: 0, width, height, scale: 1 / density },
      captureBeyondViewport: true,
    });
    return data;
  };
  // Pictures that may be decoded late are left out of the drawing that makes the browser decode them.
  let last = await draw();
  for (let round = 1; round < maxRounds; round++) {
    await pause(betweenRounds);
    const next = await draw();
    if (next === last) break;
    last = next;
  }
  return Buffer.from(last, 'base64');
}
