import type { SlotCurve } from '../core/slots/placement.js';
import type { TermOf } from './visit-document.js';

/** The term of an element with a slot curve. */
export function elementText({ kind, selector }: { kind: string; selector: string }): string {
  return `${kind} ${selector}`;
}

/** Slot curves as they are kept with a page: the numbers of two terms for each, of the element and of the pieces. */
export function curvesText(curves: readonly Omit<SlotCurve, 'page'>[], term: TermOf): string {
  return JSON.stringify(
    curves.flatMap((curve) => [term(elementText(curve)), term(JSON.stringify(curve.pieces))]),
  );
}
