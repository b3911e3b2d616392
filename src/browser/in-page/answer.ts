import { curveTolerance } from '../../core/slots/slot-curve.js';
import { slotWidths, slotWidthsOnceDrawn } from './placements.js';

let isHeard = false;

/** Has it kept from now on whether scripts have heard of another width of the window. */
export function listenForWidth(): void {
  isHeard = false;
  addEventListener('resize', () => (isHeard = true), { once: true });
}

/**
 * Whether slots have other sizes once the page's scripts have answered to a width that the window has just got: in one frame
 * their listeners are called, and after them animation callbacks and observers (HTML standard, "update the rendering").
 *
 * @returns `null` where they had heard of it before the slots could be measured
 */
export async function scriptsAnswer(): Promise<boolean | null> {
  const before = slotWidths();
  if (isHeard) return null;
  const after = await slotWidthsOnceDrawn();
  if (before.viewport !== after.viewport) return null;
  return before.widths.some((one, slot) => differs(one, after.widths[slot] ?? null));
}

function differs(one: number | null, other: number | null): boolean {
  if (one === null || other === null) return one !== other;
  return Math.abs(one - other) > curveTolerance;
}
