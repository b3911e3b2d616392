import type { ImageResponse } from '../core/survey/image-file.js';
import type { ElementMarkup } from '../core/slots/element-markup.js';
import type { ElementPath } from '../core/slots/element-path.js';
import type { FoundPlacement, Markup, Placement } from '../core/slots/placement.js';
import type { PictureUse } from '../core/survey/picture-use.js';
import type { LoadFacts } from '../core/survey/load-facts.js';
import type { PageScreen } from '../core/survey/page-screen.js';
import type { Resource } from '../core/survey/resource.js';
import type { ResponseFacts, PlacementShape } from '../core/survey/survey-tables.js';

/** What one visit found. */
export interface VisitFacts {
  readonly view: string;
  readonly placements: readonly FoundPlacement[];
  readonly responses: readonly Omit<ImageResponse, 'page' | 'view'>[];
  readonly uses: readonly Omit<PictureUse, 'page'>[];
  readonly resources: readonly Resource[];
  readonly load: LoadFacts | null;
  readonly screen: PageScreen | null;
}

/** The number of a text among those of a survey. */
export type TermOf = (text: string) => number;

/** The number for no text. */
export const noTerm = 0;

/** The numbers that stand for a placement: its shape, its address, its alternative text, its content hash. */
export const numbersPerPlacement = 4;

/** The numbers of the terms of a visit: four for a placement, and one for everything else. */
export interface VisitDocument {
  readonly placements: readonly number[];
  readonly elements: readonly number[];
  readonly paths: readonly number[];
  readonly responses: readonly number[];
  readonly uses: readonly number[];
}

/** What pages repeat (and pages of one template repeat nearly everything) is kept once, as a term. */
export function visitDocument(
  { placements, responses, uses }: VisitFacts,
  term: TermOf,
): VisitDocument {
  return {
    placements: placements.flatMap((placement) => [
      term(shapeText(placement)),
      term(placement.url),
      placement.markup?.alt == null ? noTerm : term(`alt ${placement.markup.alt}`),
      placement.contentHash === null ? noTerm : term(placement.contentHash),
    ]),
    elements: placements.map(({ element }) =>
      element === null ? noTerm : term(JSON.stringify(element)),
    ),
    paths: placements.map(({ path }) =>
      path.length === 0 ? noTerm : term(`path ${JSON.stringify(path)}`),
    ),
    responses: responses.map((response) => term(JSON.stringify(response))),
    uses: uses.map((use) => term(JSON.stringify(use))),
  };
}

/** The numbers of the terms of a visit's resources. */
export function resourceNumbers({ resources }: VisitFacts, term: TermOf): number[] {
  return resources.map((resource) => term(JSON.stringify(resource)));
}

type KeptDocument = Pick<VisitDocument, 'placements' | 'responses'> & Partial<VisitDocument>;

/** Reads the text of JSON that a visit is kept as. */
export function readVisitDocument(text: string): VisitDocument {
  // Documents of older versions have no elements, no paths and no uses.
  return { elements: [], paths: [], uses: [], ...(JSON.parse(text) as KeptDocument) };
}

const aboveFold = 1;
const shown = 2;
const lazy = 4;
const aside = 8;
const largest = 16;

function shapeText(placement: Omit<Placement, 'page' | 'view'>): string {
  const { kind, selector, slot, fit, fetched, drawn, naturalDensity, markup } = placement;
  const { srcset, sizes, fetchPriority, decoding, dimensions } = markup ?? {};
  return JSON.stringify([
    kind,
    selector,
    slot.width,
    slot.height,
    fit,
    (placement.aboveFold ? aboveFold : 0) |
      (placement.shown ? shown : 0) |
      (placement.loading === 'lazy' ? lazy : 0) |
      (placement.aside ? aside : 0) |
      (placement.largest ? largest : 0),
    fetched,
    drawn,
    naturalDensity,
    markup && [srcset, sizes, fetchPriority, decoding, dimensions, ...boxNumbers(markup)],
  ]);
}

/** The numbers of a declared box; none for the many elements without one. */
function boxNumbers({ declared, framed }: Markup): (number | null)[] {
  const { width, height } = declared;
  if (width === null && height === null && !framed) return [];
  return [width, height, ...(framed ? [1] : [])];
}

type StoredMarkup = [
  srcset: string | null,
  sizes: string | null,
  fetchPriority: 'high' | 'low' | 'auto',
  decoding: 'sync' | 'async' | 'auto',
  dimensions: boolean,
  declaredWidth?: number | null,
  declaredHeight?: number | null,
  framed?: 1,
];

type StoredShape = [
  kind: Placement['kind'],
  selector: string,
  slotWidth: number,
  slotHeight: number,
  fit: Placement['fit'],
  flags: number,
  fetched: Placement['fetched'],
  drawn: Placement['drawn'],
  naturalDensity: number,
  markup: StoredMarkup | null,
];

/** A shape read from its term; its alternative text is a term of its own. */
export function readShape(text: string): PlacementShape {
  const one = JSON.parse(text) as StoredShape;
  const [srcset, sizes, fetchPriority, decoding, dimensions, width, height, framed] = one[9] ?? [];
  return {
    kind: one[0],
    selector: one[1],
    slot: { width: one[2], height: one[3] },
    fit: one[4],
    aboveFold: (one[5] & aboveFold) !== 0,
    shown: (one[5] & shown) !== 0,
    loading: (one[5] & lazy) !== 0 ? 'lazy' : 'eager',
    aside: (one[5] & aside) !== 0,
    largest: (one[5] & largest) !== 0,
    fetched: one[6],
    drawn: one[7],
    naturalDensity: one[8],
    markup: one[9] && {
      alt: null,
      srcset: srcset!,
      sizes: sizes!,
      fetchPriority: fetchPriority!,
      decoding: decoding!,
      dimensions: dimensions!,
      declared: { width: width ?? null, height: height ?? null },
      framed: framed === 1,
    },
  };
}

export function readElement(text: string): ElementMarkup {
  return JSON.parse(text) as ElementMarkup;
}

export function readPath(text: string): ElementPath {
  return JSON.parse(text.slice('path '.length)) as ElementPath;
}

export function readUse(text: string): Omit<PictureUse, 'page'> {
  return JSON.parse(text) as Omit<PictureUse, 'page'>;
}

/** An alternative text as a term: with a prefix, because it may be empty. */
export function readAlt(text: string): string {
  return text.slice('alt '.length);
}

export function readResponse(text: string): ResponseFacts {
  // Responses stored by older versions have no initiator.
  const response = JSON.parse(text) as Omit<ResponseFacts, 'initiator'> & Partial<ResponseFacts>;
  return { ...response, initiator: response.initiator ?? 'other' };
}
