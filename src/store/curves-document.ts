import type { SlotCurve } from '../core/slots/placement.js';
import type { TermOf } from './visit-document.js';

/** How elements are called that slot curves are kept of. */
export function elementText({ kind, selector }: { kind: string; selector: string }): string {
  return `${kind} ${selector}`;
}

/** Slot curves as they are kept with a page: the numbers of two terms for each, of the element and of the pieces. */
export function curvesText(curves: readonly Omit<SlotCurve, 'page'>[], term: TermOf): string {
  return JSON.stringify(
    curves.flatMap((curve) => [term(elementText(curve)), term(JSON.stringify(curve.pieces))]),
  );
}
