import { carriedRounding } from '../base/whole-numbers.js';
import { numbersPerAmount, portionOf, scaled, wholePortions } from '../waste/portion.js';
import type { Portion } from '../waste/portion.js';
import type { SortKey } from './sort-keys.js';

/** The rows of a grouping in columns, most waste first. */
export interface RowColumns {
  /** 1 for what third parties send. */
  readonly thirdParty: ArrayLike<number>;
  /** What an average visit has of each row, in the layout of `addAmounts`. */
  readonly amounts: Float64Array;
}

/** What a row can be sorted by besides its bytes in an average visit. */
export interface SortValues {
  readonly files: number;
  readonly pages: number;
  /** Bytes of the file that wastes the most. */
  readonly bytes: number;
}

/** How rows are chosen. */
export interface RowChoice {
  readonly sort: SortKey;
  readonly top: number;
  /** Asked for only where the order depends on it. */
  readonly valuesOf: (row: number) => SortValues;
  readonly timeOf?: ((row: number) => number) | undefined;
}

/** The rows that are shown, by their places in the columns. */
export interface ChosenRows {
  readonly rows: readonly number[];
  readonly thirdParty: readonly number[];
  readonly leftOut: number;
  /** All of them, in their order. */
  readonly order: readonly number[];
  /** In whole bytes, which add up to the total. */
  readonly wholeOf: (row: number) => Portion;
  readonly total: Portion;
  readonly thirdPartyTotal: Portion;
}

const fewRows = 3;

/** The first rows of their kind: what the site's owner can change, before what third parties send. */
export function chooseRows(columns: RowColumns, choice: RowChoice): ChosenRows {
  const { sort, top, valuesOf, timeOf } = choice;
  const count = columns.amounts.length / numbersPerAmount;
  const whole = wholeAmounts(columns.amounts);
  const wholeOf = (row: number) => portionOf((at) => whole[row * numbersPerAmount + at]!);
  const rows = Array.from({ length: count }, (_, row) => row);
  const values = Float64Array.from(rows, (row) =>
    sort === 'files' || sort === 'pages' || sort === 'bytes'
      ? valuesOf(row)[sort]
      : bytesOf(whole, row, sort),
  );
  const times = timeOf && sort === 'time' ? Float64Array.from(rows, timeOf) : undefined;
  rows.sort((a, b) => (times ? times[b]! - times[a]! : 0) || values[b]! - values[a]!);
  const [own, foreign] = [0, 1].map((party) =>
    rows.filter((row) => columns.thirdParty[row] === party),
  );
  const shown = own!.slice(0, top);
  // What nobody here can change takes a few lines, unless there is room for all.
  const thirdParty = foreign!.slice(0, Math.max(fewRows, top - own!.length));
  return {
    ...{ rows: shown, thirdParty, order: rows, wholeOf },
    leftOut: count - shown.length - thirdParty.length,
    total: totalOf(whole, rows),
    thirdPartyTotal: totalOf(whole, foreign!),
  };
}

/** The amounts in whole bytes, in the same layout. */
function wholeAmounts(amounts: Float64Array): Float64Array {
  const rounders = Array.from({ length: numbersPerAmount }, carriedRounding);
  return amounts.map((value, at) => rounders[at % numbersPerAmount]!(value));
}

/** What a row is sorted by; where two rows spare the same time, by its waste. */
function bytesOf(whole: Float64Array, row: number, sort: SortKey): number {
  const from = row * numbersPerAmount;
  if (sort === 'needed') return whole[from]!;
  let waste = 0;
  for (let at = 2; at < numbersPerAmount; at++) waste += whole[from + at]!;
  return sort === 'sent' ? waste + whole[from]! : waste;
}

function totalOf(whole: Float64Array, rows: readonly number[]): Portion {
  return portionOf((at) => rows.reduce((sum, row) => sum + whole[row * numbersPerAmount + at]!, 0));
}

/** What an average visit to a page is sent: its part of an average visit, divided by the share of its visits. */
export function portionOfPage(perVisit: Portion, share: number): Portion {
  return wholePortions([share > 0 ? scaled(perVisit, 1 / share) : perVisit]).total;
}
