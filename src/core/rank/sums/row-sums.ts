import { ExactSums } from '../../base/exact-sums.js';
import type { CurvePiece } from '../../slots/slot-curve.js';
import type { Ledger } from '../../waste/ledger.js';
import { PortionSums } from '../../waste/portion.js';
import { curvesOf } from '../family.js';
import { groupDeliveries } from '../groupings.js';
import type { Grouping } from '../groupings.js';

/** What the rows of a grouping have of files, an entry for each row, file and width that is needed of it. */
export interface FileShares {
  /** Places in the list of rows, and in that of files. */
  readonly row: Int32Array;
  readonly file: Int32Array;
  /** Pixels across; 0 where nothing is needed. */
  readonly width: Int32Array;
  /** Two sums for each entry: the bytes wasted in an average visit, and the weight of the visits. */
  readonly sums: ExactSums;
}

/** What a part of a survey adds to the rows of a grouping. */
export interface RowSums {
  readonly keys: readonly string[];
  /** 1 for what third parties send. */
  readonly thirdParty: Uint8Array;
  readonly portions: PortionSums;
  /** How many of its pages have something of a row. */
  readonly pages: Int32Array;
  readonly shares: FileShares;
  /** By slot family, the slot curves of each row, each that is different once; else empty. */
  readonly curves: readonly (readonly (readonly CurvePiece[])[])[];
}

/** Sums up the deliveries of a part of a survey. */
export function rowSumsOf(ledger: Ledger, by: Grouping): RowSums {
  const { keys, thirdParty, portions, rowsOf } = groupDeliveries(ledger, ledger.rows, by);
  const { visits } = ledger.facts;
  const pages = new Int32Array(keys.length);
  const curves: (readonly (readonly CurvePiece[])[])[] = [];
  const shares = new GrowingShares();
  const pageOf = pageNumbers(visits);
  const lastRow = new Int32Array(visits.length).fill(-1);
  const wasted = Float64Array.from(ledger.verdicts, ({ waste }) => waste?.wasteBytes ?? 0);
  keys.forEach((_, row) => {
    const rows = rowsOf(row);
    for (let at = 0; at < rows.length; at++) {
      const delivery = rows[at]!;
      const visit = ledger.visit[delivery]!;
      const page = pageOf[visit]!;
      if (lastRow[page] !== row) pages[row]!++;
      lastRow[page] = row;
      const verdict = ledger.verdictIndex[delivery]!;
      // Only the widths of slot families are planned.
      const width = by === 'family' ? (ledger.verdicts[verdict]!.need?.width ?? 0) : 0;
      const weight = ledger.weights[visit]!;
      shares.add(row, ledger.file[delivery]!, width, wasted[verdict]! * weight, weight);
    }
    if (by === 'family') curves.push(curvesOf(rows, ledger));
  });
  return { keys, thirdParty, portions, pages, shares: shares.done(), curves };
}

/** The number of the page of each visit; those of one page come one after the other. */
function pageNumbers(visits: readonly { readonly page: string }[]): Int32Array {
  let number = 0;
  return Int32Array.from(visits, ({ page }, at) =>
    at > 0 && visits[at - 1]!.page !== page ? ++number : number,
  );
}

/** Shares while they are added up: all of one row, one file after the other. */
class GrowingShares {
  readonly #rows: number[] = [];
  readonly #files: number[] = [];
  readonly #widths: number[] = [];
  #sums = new ExactSums(64);
  /** Where the entries of the file begin that is added up. */
  #from = 0;

  add(row: number, file: number, width: number, waste: number, weight: number): void {
    const at = this.#entryOf(row, file, width);
    this.#sums.add(at * 2, waste);
    this.#sums.add(at * 2 + 1, weight);
  }

  /** Adds an entry of others. */
  addSums(row: number, file: number, width: number, sums: ExactSums, entry: number): void {
    const at = this.#entryOf(row, file, width);
    this.#sums.addSum(at * 2, sums, entry * 2);
    this.#sums.addSum(at * 2 + 1, sums, entry * 2 + 1);
  }

  #entryOf(row: number, file: number, width: number): number {
    const end = this.#rows.length;
    if (this.#rows[end - 1] !== row || this.#files[end - 1] !== file) this.#from = end;
    let at = this.#from;
    while (at < end && this.#widths[at] !== width) at++;
    if (at === end) this.#append(row, file, width);
    return at;
  }

  #append(row: number, file: number, width: number): void {
    this.#rows.push(row);
    this.#files.push(file);
    this.#widths.push(width);
    if (this.#rows.length * 2 <= this.#sums.length) return;
    this.#sums = this.#sums.extended();
  }

  done(): FileShares {
    const count = this.#rows.length;
    return {
      row: Int32Array.from(this.#rows),
      file: Int32Array.from(this.#files),
      width: Int32Array.from(this.#widths),
      sums: new ExactSums(count * 2, this.#sums.numbers.slice(0, count * 4)),
    };
  }
}

/** The sum of what the parts of a survey add to the rows of a grouping. */
export function mergeRowSums(parts: readonly RowSums[]): RowSums {
  const places = new Map<string, number>();
  const placeOf = parts.map(({ keys, thirdParty }) =>
    Int32Array.from(keys, (key, row) => {
      const name = `${thirdParty[row]!}\n${key}`;
      const known = places.get(name);
      if (known !== undefined) return known;
      places.set(name, places.size);
      return places.size - 1;
    }),
  );
  const portions = new PortionSums(places.size);
  const pages = new Int32Array(places.size);
  const curves = new Map<number, Map<string, readonly CurvePiece[]>>();
  parts.forEach((part, at) =>
    part.keys.forEach((_, row) => {
      const place = placeOf[at]![row]!;
      portions.addRow(place, part.portions, row);
      pages[place]! += part.pages[row]!;
      const found = curves.get(place) ?? new Map<string, readonly CurvePiece[]>();
      for (const curve of part.curves[row] ?? []) found.set(JSON.stringify(curve), curve);
      if (found.size > 0) curves.set(place, found);
    }),
  );
  const isFamily = parts.some((part) => part.curves.length > 0);
  const names = [...places.keys()];
  return {
    keys: names.map((name) => name.slice(2)),
    thirdParty: Uint8Array.from(names, (name) => Number(name[0])),
    portions,
    pages,
    shares: mergeShares(parts, placeOf, places.size),
    curves: isFamily ? names.map((_, row) => [...(curves.get(row)?.values() ?? [])]) : [],
  };
}

function mergeShares(
  parts: readonly RowSums[],
  placeOf: readonly Int32Array[],
  rows: number,
): FileShares {
  const starts = new Int32Array(rows + 1);
  parts.forEach(({ shares }, at) => {
    for (const row of shares.row) starts[placeOf[at]![row]! + 1]!++;
  });
  for (let row = 0; row < rows; row++) starts[row + 1]! += starts[row]!;
  // The entries of each merged row, as the part and the place in it.
  const [part, entry] = [new Int32Array(starts[rows]!), new Int32Array(starts[rows]!)];
  const next = starts.slice();
  parts.forEach(({ shares }, at) =>
    shares.row.forEach((row, place) => {
      const to = next[placeOf[at]![row]!]!++;
      part[to] = at;
      entry[to] = place;
    }),
  );
  const merged = new GrowingShares();
  for (let row = 0; row < rows; row++) {
    const [from, to] = [starts[row]!, starts[row + 1]!];
    const count = to - from;
    // One number for a file and a place, which are sorted together without being asked about.
    const order = new Float64Array(count);
    for (let at = 0; at < count; at++)
      order[at] = parts[part[from + at]!]!.shares.file[entry[from + at]!]! * count + at;
    order.sort();
    for (const key of order) {
      const at = from + (key % count);
      const { file, width, sums } = parts[part[at]!]!.shares;
      const place = entry[at]!;
      merged.addSums(row, file[place]!, width[place]!, sums, place);
    }
  }
  return merged.done();
}
