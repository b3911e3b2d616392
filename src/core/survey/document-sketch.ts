/** The most hashes in a sketch. */
export const sketchSize = 128;

/** How a document is built, as the probe sketches it. */
export interface DocumentSketch {
  /** Hashes of how its elements are nested, ascending; empty when it was not seen. */
  readonly full: readonly number[];
  /** The same without what stands in texts: paragraphs and what is set among them. */
  readonly frame: readonly number[];
  /** The same of what stands near its root, and not beside paragraphs, without the body's own classes: heads, columns, feet. */
  readonly skeleton: readonly number[];
  /** What its template calls itself: classes of its body. */
  readonly marks: readonly string[];
  /** The breadcrumbs above the page, from the top of the site. */
  readonly trail: readonly string[];
  /** Its first heading of the first level; empty without one. */
  readonly heading: string;
}

export const noSketch: DocumentSketch = {
  full: [],
  frame: [],
  skeleton: [],
  marks: [],
  trail: [],
  heading: '',
};

/** A page with its sketch. */
export interface SketchedPage {
  readonly url: string;
  readonly sketch: DocumentSketch;
}

/** A sketch as it is kept; older surveys kept less, the oldest the hashes of the full one alone. */
export function readSketch(text: string): DocumentSketch {
  const kept = JSON.parse(text) as readonly number[] | Partial<DocumentSketch>;
  return 'full' in kept ? { ...noSketch, ...kept } : { ...noSketch, full: kept as number[] };
}

export type Likeness = (one: readonly number[], other: readonly number[]) => number;

/**
 * How alike two documents are: the Jaccard coefficient of their sketches (A. Z. Broder, "On the resemblance and containment
 * of documents", 1997: of the smallest hashes of both together, the part that both have), each hash weighted by how few
 * pages have it, so that the frame which all pages of a site share does not make them one. Documents that were not seen are
 * like none.
 *
 * @param sketches of all pages
 */
export function likenessAmong(sketches: readonly (readonly number[])[]): Likeness {
  const pagesWith = new Map<number, number>();
  for (const sketch of sketches)
    for (const hash of sketch) pagesWith.set(hash, (pagesWith.get(hash) ?? 0) + 1);
  const weight = (hash: number) => Math.log(1 + sketches.length / (pagesWith.get(hash) ?? 1));
  return (one, other) => {
    if (one.length === 0 || other.length === 0) return 0;
    const [mine, theirs] = [new Set(one), new Set(other)];
    const all = [...new Set([...mine, ...theirs])];
    // A full sketch was cut: beyond the smallest hashes of both together it says nothing.
    if (Math.max(mine.size, theirs.size) >= sketchSize) {
      all.sort((a, b) => a - b);
      all.length = Math.min(all.length, sketchSize);
    }
    let both = 0;
    let either = 0;
    for (const hash of all) {
      either += weight(hash);
      if (mine.has(hash) && theirs.has(hash)) both += weight(hash);
    }
    return both / either;
  };
}
