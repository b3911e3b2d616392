import type { SlotCurve } from '../core/slots/placement.js';
import { curveNumbers } from './curves-document.js';
import { loadDocument, renumberedLoad } from './load-document.js';
import type { LoadDocument } from './load-document.js';
import { noTerm, resourceNumbers, visitDocument } from './visit-document.js';
import type { TermOf, VisitDocument, VisitFacts } from './visit-document.js';

/** A visit as it is kept, in three texts of JSON. What stands for a text is the number of its term. */
export interface VisitDocuments {
  readonly facts: VisitDocument;
  readonly resources: readonly number[];
  readonly load: LoadDocument | null;
}

/** What is kept of a page and its visits in numbers of terms. */
export interface PageDocument {
  readonly curves: readonly number[];
  readonly visits: readonly VisitDocuments[];
}

export function pageDocument(
  curves: readonly Omit<SlotCurve, 'page'>[],
  visits: readonly VisitFacts[],
  term: TermOf,
): PageDocument {
  return {
    curves: curveNumbers(curves, term),
    visits: visits.map((visit) => ({
      facts: visitDocument(visit, term),
      resources: resourceNumbers(visit, term),
      load: loadDocument(visit.load, term),
    })),
  };
}

/** The same list with other numbers for the terms. */
export function renumberedList(
  numbers: readonly number[],
  toNumber: (number: number) => number,
): number[] {
  return numbers.map((number) => (number === noTerm ? noTerm : toNumber(number)));
}

/** The texts of JSON of a visit with other numbers for the terms. */
export function visitTexts(
  { facts, resources, load }: VisitDocuments,
  toNumber: (number: number) => number,
): [facts: string, resources: string, load: string] {
  const lists = Object.entries(facts as unknown as Record<string, readonly number[]>).map(
    ([name, numbers]) => [name, renumberedList(numbers, toNumber)] as const,
  );
  return [
    JSON.stringify(Object.fromEntries(lists)),
    JSON.stringify(renumberedList(resources, toNumber)),
    JSON.stringify(load && renumberedLoad(load, toNumber)),
  ];
}
