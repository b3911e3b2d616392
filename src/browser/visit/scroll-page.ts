import type { Channel } from '../chromium/channel.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import { watchesScrolling } from './listeners.js';

/** Milliseconds given to scripts that listen to scrolling: debounced handlers run a tenth of a second late. */
const scriptTime = 160;

/**
 * Scrolls a page to its end and back, so that everything is requested that a visitor would see.
 *
 * Scripts that listen to scrolling get time at every screen only if they load something: where the document holds
 * images back, or where a quick pass made scripts request one. Most listen for the sake of a menu that shrinks.
 */
export async function scrollPage(
  world: IsolatedWorld,
  cdp: Channel,
  recorder: NetworkRecorder,
): Promise<void> {
  if (!(await watchesScrolling(cdp))) return world.call('scrollThrough', 0, 0);
  if (!(await world.call<boolean>('holdsImagesBack'))) {
    const before = recorder.recorded.length;
    await world.call('scrollThrough', 0, scriptTime);
    const expected = new Set(await world.call<string[]>('lazyAddresses'));
    const caused = recorder.recorded
      .slice(before)
      .filter(({ url, resourceType }) => byScripts.has(resourceType) && !expected.has(url));
    if (caused.length === 0) return;
  }
  await world.call('scrollThrough', scriptTime, scriptTime);
}

/** Types of requests by which scripts bring images into a page. */
const byScripts: ReadonlySet<string> = new Set(['Image', 'XHR', 'Fetch']);
