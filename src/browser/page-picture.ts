import type { CDPSession } from 'playwright-core';
import type { IsolatedWorld } from './isolated-world.js';

/** A page is drawn to this depth and no further, in CSS pixels. */
const maxHeight = 10_000;
/** Milliseconds that pictures further down may take when they are scrolled to. */
const patience = 4_000;

/**
 * Draws a whole page, lazy pictures included, a pixel to a CSS pixel. It scrolls the page and takes its line and
 * processor out of their shape: nothing may be timed after it.
 *
 * @param width pixels across of the view
 * @returns a PNG file
 */
export async function takePicture(
  cdp: CDPSession,
  world: IsolatedWorld,
  width: number,
): Promise<Buffer> {
  await cdp.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await world.call('scrollThrough', 0);
  await world.call('settleImages', patience);
  await world.call('decodeImages', patience);
  const { cssContentSize } = await cdp.send('Page.getLayoutMetrics');
  const height = Math.max(1, Math.min(maxHeight, Math.ceil(cssContentSize.height)));
  const { data } = await cdp.send('Page.captureScreenshot', {
    format: 'png',
    clip: { x: 0, y: 0, width, height, scale: 1 },
    captureBeyondViewport: true,
  });
  return Buffer.from(data, 'base64');
}
