import type { Channel } from '../chromium/channel.js';

/** Where a page listens to its window. */
const places = ['window', 'document', 'document.body'];

/** Events with which a page follows its visitor's scrolling. */
const scrolling: ReadonlySet<string> = new Set(['scroll', 'scrollend', 'wheel', 'touchmove']);

/**
 * Whether scripts of the page listen to scrolling. They commonly react late, when a timer of a tenth of a
 * second says that scrolling has stopped; intersection observers are called in the next frame.
 */
export function watchesScrolling(cdp: Channel): Promise<boolean> {
  return listens(cdp, scrolling);
}

/** Whether scripts of the page listen to the size of the window; others may observe that of elements. */
export function watchesSize(cdp: Channel): Promise<boolean> {
  return listens(cdp, new Set(['resize']));
}

async function listens(cdp: Channel, events: ReadonlySet<string>): Promise<boolean> {
  const objectGroup = 'listeners';
  const listensAt = async (expression: string): Promise<boolean> => {
    const { result } = await cdp.send('Runtime.evaluate', { expression, objectGroup });
    if (!result.objectId) return false;
    const { listeners } = await cdp.send('DOMDebugger.getEventListeners', {
      objectId: result.objectId,
    });
    return listeners.some(({ type }) => events.has(type));
  };
  const heard = await Promise.all(places.map(listensAt));
  await cdp.send('Runtime.releaseObjectGroup', { objectGroup });
  return heard.includes(true);
}
