import { slotWidths } from './placements.js';
import type { SlotWidths } from './placements.js';
import { drawn } from './waiting.js';

let isHeard = false;

/** Has it kept from now on whether scripts have heard of another width of the window; what is to be drawn before is drawn. */
export async function listenForWidth(): Promise<void> {
  await drawn();
  isHeard = false;
  addEventListener('resize', () => (isHeard = true), { once: true });
}

/** Milliseconds that a width may take to come. */
const longestWait = 500;

/**
 * The slots at a width that the window is about to get, before scripts could react to it: in one frame their listeners are called,
 * and after them animation callbacks and observers (HTML standard, "update the rendering"). The frame often comes so soon that
 * the width is looked for task by task.
 *
 * @returns `null` where they have heard of it already, or it did not come
 */
export async function unheardSlotWidths(width: number): Promise<SlotWidths | null> {
  const end = performance.now() + longestWait;
  while (innerWidth !== width && performance.now() < end) await nextTask();
  const widths = slotWidths();
  return isHeard || widths.viewport !== width ? null : widths;
}

/** Sooner than by a timer, which waits for 4 ms when it was set again and again. */
function nextTask(): Promise<unknown> {
  const { port1, port2 } = new MessageChannel();
  return new Promise((resolve) => {
    port1.onmessage = resolve;
    port2.postMessage(null);
  });
}
