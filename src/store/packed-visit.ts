// A visit as the second version of the workspace kept it, for workspaces that have to be brought up to date.
import type { ImageResponse } from '../core/survey/image-file.js';
import type { Markup, Placement } from '../core/slots/placement.js';
import type { VisitFacts } from './visit-document.js';

type StoredPlacement = [
  kind: Placement['kind'],
  selector: string,
  url: string,
  contentHash: number,
  slotWidth: number,
  slotHeight: number,
  fit: Placement['fit'],
  flags: number,
  fetched: Placement['fetched'],
  drawn: Placement['drawn'],
  naturalDensity: number,
  markup: Markup | null,
];

interface StoredVisit {
  /** Content hashes, which the placements name by their place in this list; -1 is none. */
  readonly files: readonly string[];
  readonly placements: readonly StoredPlacement[];
  readonly responses: readonly Omit<ImageResponse, 'page' | 'view'>[];
}

const aboveFold = 1;
const shown = 2;
const lazy = 4;

export function packVisit({ placements, responses }: VisitFacts): string {
  const places = new Map<string, number>();
  const placeOf = (hash: string) => {
    const place = places.get(hash) ?? places.size;
    places.set(hash, place);
    return place;
  };
  const stored = placements.map((one): StoredPlacement => [
    one.kind,
    one.selector,
    one.url,
    one.contentHash === null ? -1 : placeOf(one.contentHash),
    one.slot.width,
    one.slot.height,
    one.fit,
    (one.aboveFold ? aboveFold : 0) | (one.shown ? shown : 0) | (one.loading === 'lazy' ? lazy : 0),
    one.fetched,
    one.drawn,
    one.naturalDensity,
    one.markup,
  ]);
  const document: StoredVisit = { files: [...places.keys()], placements: stored, responses };
  return JSON.stringify(document);
}

/** What `packVisit` kept. */
export function unpackVisit(text: string, view: string): VisitFacts {
  const { files, placements, responses } = JSON.parse(text) as StoredVisit;
  return {
    view,
    placements: placements.map((one) => ({
      kind: one[0],
      selector: one[1],
      url: one[2],
      contentHash: files[one[3]] ?? null,
      slot: { width: one[4], height: one[5] },
      fit: one[6],
      aboveFold: (one[7] & aboveFold) !== 0,
      aside: false,
      largest: false,
      shown: (one[7] & shown) !== 0,
      loading: (one[7] & lazy) !== 0 ? 'lazy' : 'eager',
      fetched: one[8],
      drawn: one[9],
      naturalDensity: one[10],
      markup: one[11],
    })),
    responses,
  };
}
