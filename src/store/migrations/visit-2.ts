// A visit as the second version kept it. Frozen: what was written by it must be readable for ever.

/** A placement of that version. */
export interface Placement2 {
  readonly kind: string;
  readonly selector: string;
  readonly url: string;
  readonly contentHash: string | null;
  readonly slot: { readonly width: number; readonly height: number };
  readonly fit: string;
  readonly aboveFold: boolean;
  readonly shown: boolean;
  readonly loading: 'lazy' | 'eager';
  readonly fetched: string | null;
  readonly drawn: unknown;
  readonly naturalDensity: number;
  readonly markup: Markup2 | null;
}

/** Of its markup; later writers of that version stored more of it than earlier ones. */
export interface Markup2 {
  readonly alt?: string | null;
  readonly srcset?: string | null;
  readonly sizes?: string | null;
  readonly fetchPriority?: string;
  readonly decoding?: string;
  readonly dimensions?: boolean;
}

export interface Visit2 {
  readonly placements: readonly Placement2[];
  readonly responses: readonly Readonly<Record<string, unknown>>[];
}

type Stored = [
  kind: string,
  selector: string,
  url: string,
  contentHash: number,
  slotWidth: number,
  slotHeight: number,
  fit: string,
  flags: number,
  fetched: string | null,
  drawn: unknown,
  naturalDensity: number,
  markup: Markup2 | null,
];

interface StoredVisit {
  /** Content hashes, which the placements name by their index in this list; -1 is none. */
  readonly files: readonly string[];
  readonly placements: readonly Stored[];
  readonly responses: Visit2['responses'];
}

const aboveFold = 1;
const shown = 2;
const lazy = 4;

export function writeVisit2({ placements, responses }: Visit2): string {
  const indexes = new Map<string, number>();
  const indexOf = (hash: string) => {
    const index = indexes.get(hash) ?? indexes.size;
    indexes.set(hash, index);
    return index;
  };
  const stored = placements.map((one): Stored => [
    one.kind,
    one.selector,
    one.url,
    one.contentHash === null ? -1 : indexOf(one.contentHash),
    one.slot.width,
    one.slot.height,
    one.fit,
    (one.aboveFold ? aboveFold : 0) | (one.shown ? shown : 0) | (one.loading === 'lazy' ? lazy : 0),
    one.fetched,
    one.drawn,
    one.naturalDensity,
    one.markup,
  ]);
  const document: StoredVisit = { files: [...indexes.keys()], placements: stored, responses };
  return JSON.stringify(document);
}

export function readVisit2(text: string): Visit2 {
  const { files, placements, responses } = JSON.parse(text) as StoredVisit;
  return {
    placements: placements.map((one) => ({
      kind: one[0],
      selector: one[1],
      url: one[2],
      contentHash: files[one[3]] ?? null,
      slot: { width: one[4], height: one[5] },
      fit: one[6],
      aboveFold: (one[7] & aboveFold) !== 0,
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
