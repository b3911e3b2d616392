import { slotWidths } from './placements.js';
import type { SlotWidths } from './placements.js';

let isHeard = false;

/** Has it kept from now on whether scripts have heard of another width of the window. */
export function listenForWidth(): void {
  isHeard = false;
  addEventListener('resize', () => (isHeard = true), { once: true });
}

/**
 * The slots at a width that the window has just got, before scripts could react to it: in one frame their listeners are called,
 * and after them animation callbacks and observers (HTML standard, "update the rendering").
 *
 * @returns `null` where they have heard of it already
 */
export function unheardSlotWidths(): SlotWidths | null {
  const widths = slotWidths();
  return isHeard ? null : widths;
}
