import type { Channel } from '../chromium/channel.js';

/** Events with which a page follows its visitor's scrolling. */
const scrolling: ReadonlySet<string> = new Set(['scroll', 'scrollend', 'wheel', 'touchmove']);

/**
 * Whether scripts of the page listen to scrolling. They commonly react late, when a timer of a tenth of a
 * second says that scrolling has stopped; intersection observers are called in the next frame.
 */
export async function watchesScrolling(cdp: Channel): Promise<boolean> {
  const objectGroup = 'scroll-watchers';
  const listens = async (expression: string): Promise<boolean> => {
    const { result } = await cdp.send('Runtime.evaluate', { expression, objectGroup });
    if (!result.objectId) return false;
    const { listeners } = await cdp.send('DOMDebugger.getEventListeners', {
      objectId: result.objectId,
    });
    return listeners.some(({ type }) => scrolling.has(type));
  };
  const heard = await Promise.all(['window', 'document', 'document.body'].map(listens));
  await cdp.send('Runtime.releaseObjectGroup', { objectGroup });
  return heard.includes(true);
}
