import type { SlotCurve } from '../core/slots/placement.js';
import type { TermOf } from './visit-document.js';

/** The term of an element with a slot curve. */
export function elementText({ kind, selector }: { kind: string; selector: string }): string {
  return `${kind} ${selector}`;
}

/** The numbers of two terms for each slot curve of a page: of the element and of the pieces. */
export function curveNumbers(curves: readonly Omit<SlotCurve, 'page'>[], term: TermOf): number[] {
  return curves.flatMap((curve) => [term(elementText(curve)), term(JSON.stringify(curve.pieces))]);
}
