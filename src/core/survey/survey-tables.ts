import type { ImageResponse } from './image-file.js';
import type { ElementMarkup } from '../slots/element-markup.js';
import type { ElementPath } from '../slots/element-path.js';
import type { Markup, Placement } from '../slots/placement.js';
import type { CurvePiece } from '../slots/slot-curve.js';

/**
 * The placements and answers of a survey as columns of numbers beside lists of what is different among them. Pages of
 * one template repeat themselves: a survey has hundreds of thousands of placements, and few thousands of shapes.
 */

/** A page in a view that a survey has measured. */
export interface VisitKey {
  readonly page: string;
  readonly view: string;
}

/** What a placement says besides its page, view, address, file and alternative text. */
export type PlacementShape = Omit<Placement, 'page' | 'view' | 'url' | 'contentHash'>;

/** A response, without its page and view. */
export type ResponseFacts = Omit<ImageResponse, 'page' | 'view'>;

/** Column of whole numbers; −1 is none. */
type Column = Int32Array;

export interface PlacementColumns {
  /** Place in the list of visits; never falls from one row to the next. */
  readonly visit: Column;
  /** Place in the list of shapes. */
  readonly shape: Column;
  /** Place in the list of addresses. */
  readonly url: Column;
  /** Place in the list of alternative texts. */
  readonly alt: Column;
  /** Place in the list of files; −1 when none arrived. */
  readonly file: Column;
  /** Place in the list of slot curves; −1 where the element was not swept. */
  readonly curve: Column;
  /** Place in the list of elements; −1 where none was kept. */
  readonly element: Column;
  /** Place in the list of paths; −1 where none was kept. */
  readonly path: Column;
}

/** The names of those columns. */
export const placementColumns = [
  'visit',
  'shape',
  'url',
  'alt',
  'file',
  'curve',
  'element',
  'path',
] as const;

/** What the columns of placements are places in. */
export interface PlacementLists {
  readonly shapes: readonly PlacementShape[];
  readonly addresses: readonly string[];
  readonly alts: readonly string[];
  /** Each that is different once. */
  readonly curves: readonly (readonly CurvePiece[])[];
  /** Each that is different once. */
  readonly elements: readonly ElementMarkup[];
  /** Each that is different once. */
  readonly paths: readonly ElementPath[];
}

/** All placements of a survey; a placement is built when its row is read. */
export class PlacementTable {
  readonly columns: PlacementColumns;
  readonly lists: PlacementLists;
  readonly #visits: readonly VisitKey[];
  readonly #hashes: readonly string[];

  /** @param hashes content hashes of the files, as the column of files counts them */
  constructor(
    columns: PlacementColumns,
    lists: PlacementLists,
    visits: readonly VisitKey[],
    hashes: readonly string[],
  ) {
    this.columns = columns;
    this.lists = lists;
    this.#visits = visits;
    this.#hashes = hashes;
  }

  get length(): number {
    return this.columns.visit.length;
  }

  at(row: number): Placement {
    const { page, view } = this.visitAt(row);
    const { markup: _, ...rest } = this.shapeAt(row);
    return {
      page,
      view,
      ...rest,
      url: this.urlAt(row),
      contentHash: this.hashAt(row),
      markup: this.markupAt(row),
    };
  }

  visitAt(row: number): VisitKey {
    return this.#visits[this.columns.visit[row]!]!;
  }

  /** What a row says besides its visit, address, file and alternative text. */
  shapeAt(row: number): PlacementShape {
    return this.lists.shapes[this.columns.shape[row]!]!;
  }

  urlAt(row: number): string {
    return this.lists.addresses[this.columns.url[row]!]!;
  }

  /** The content hash of the file of a row; `null` where none arrived. */
  hashAt(row: number): string | null {
    return this.#hashes[this.columns.file[row]!] ?? null;
  }

  markupAt(row: number): Markup | null {
    const { markup } = this.shapeAt(row);
    return markup && { ...markup, alt: this.lists.alts[this.columns.alt[row]!] ?? null };
  }

  /** The slot curve of a row's element; `null` where it was not swept. */
  curveAt(row: number): readonly CurvePiece[] | null {
    return this.lists.curves[this.columns.curve[row]!] ?? null;
  }

  /** The element of a row as it stands in the page; `null` where none was kept. */
  elementAt(row: number): ElementMarkup | null {
    return this.lists.elements[this.columns.element[row]!] ?? null;
  }

  /** Where the element of a row stands in its document; empty where that was not kept. */
  pathAt(row: number): ElementPath {
    return this.lists.paths[this.columns.path[row]!] ?? [];
  }

  *[Symbol.iterator](): Generator<Placement> {
    for (let row = 0; row < this.length; row++) yield this.at(row);
  }

  /** The rows of some visits. */
  ofVisits(keep: readonly boolean[]): PlacementTable {
    const columns = rowsOf(this.columns, keep);
    return new PlacementTable(columns, this.lists, this.#visits, this.#hashes);
  }
}

export interface ResponseColumns {
  readonly visit: Column;
  /** Place in the list of answers. */
  readonly answer: Column;
  readonly file: Column;
}

/** The names of those columns. */
export const responseColumns = ['visit', 'answer', 'file'] as const;

/** All answers that images came with, or did not. */
export class ResponseTable {
  readonly columns: ResponseColumns;
  readonly answers: readonly ResponseFacts[];
  readonly #visits: readonly VisitKey[];

  constructor(
    columns: ResponseColumns,
    answers: readonly ResponseFacts[],
    visits: readonly VisitKey[],
  ) {
    this.columns = columns;
    this.answers = answers;
    this.#visits = visits;
  }

  get length(): number {
    return this.columns.visit.length;
  }

  at(row: number): ImageResponse {
    const { page, view } = this.#visits[this.columns.visit[row]!]!;
    return { page, view, ...this.answers[this.columns.answer[row]!]! };
  }

  *[Symbol.iterator](): Generator<ImageResponse> {
    for (let row = 0; row < this.length; row++) yield this.at(row);
  }

  ofVisits(keep: readonly boolean[]): ResponseTable {
    return new ResponseTable(rowsOf(this.columns, keep), this.answers, this.#visits);
  }
}

/** Rows of a table under the places that they belong to: `rows` from `starts[place]` to before `starts[place + 1]`. */
export interface RowsByIndex {
  readonly rows: Column;
  readonly starts: Column;
}

/** Sorts rows by the places in a column, 0 to before `count`; those of one stay in order, those of none (−1) are left out. */
export function rowsByIndex(column: Column, count: number): RowsByIndex {
  const starts = new Int32Array(count + 1);
  for (const place of column) if (place >= 0) starts[place + 1]!++;
  for (let at = 0; at < count; at++) starts[at + 1]! += starts[at]!;
  const next = starts.slice();
  const rows = new Int32Array(starts[count]!);
  for (let row = 0; row < column.length; row++) {
    const place = column[row]!;
    if (place >= 0) rows[next[place]!++] = row;
  }
  return { rows, starts };
}

function rowsOf<Columns extends { readonly visit: Column }>(
  columns: Columns,
  keep: readonly boolean[],
): Columns {
  const { visit } = columns;
  const kept = Int32Array.from(visit.keys()).filter((row) => keep[visit[row]!]);
  const entries = Object.entries<Column>(columns as Columns & Record<string, Column>);
  return Object.fromEntries(
    entries.map(([name, column]) => [name, kept.map((row) => column[row]!)]),
  ) as unknown as Columns;
}

/** Numbers distinct values, in the order in which they are first seen. */
export class Dictionary<Key, Value> {
  readonly values: Value[] = [];
  readonly #places = new Map<Key, number>();
  readonly #valueOf: (key: Key) => Value;

  constructor(valueOf: (key: Key) => Value) {
    this.#valueOf = valueOf;
  }

  indexOf(key: Key): number {
    let place = this.#places.get(key);
    if (place === undefined) {
      place = this.values.push(this.#valueOf(key)) - 1;
      this.#places.set(key, place);
    }
    return place;
  }
}
