import { ExactSums } from '../../base/exact-sums.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import { amountsOf, numbersPerAmount, portionOf } from '../../waste/portion.js';
import type { Portion } from '../../waste/portion.js';
import { demandsOf } from '../demands.js';
import type { NeededWidth } from '../demands.js';
import { familyFrom } from '../family.js';
import type { Family } from '../family.js';
import { byWaste, isTold } from '../groupings.js';
import type { Grouping } from '../groupings.js';
import type { RowSums } from './row-sums.js';

/** The rows of a grouping of a whole survey in columns, most waste first. */
export interface RowTable {
  readonly keys: readonly string[];
  /** 1 for what third parties send. */
  readonly thirdParty: Uint8Array;
  /** What an average visit has of each row: needed and unknown bytes, then those of each cause. */
  readonly amounts: Float64Array;
  /** How many image files and pages are in each row. */
  readonly files: Int32Array;
  readonly pages: Int32Array;
  /** The file of each row that wastes the most in it, and its bytes; −1 where there is none. */
  readonly worst: Int32Array;
  readonly worstBytes: Float64Array;
  /** By page, the share of each in all visits; else empty. */
  readonly shares: Float64Array;
  /**
   * By image, the files of each row, those that waste the most first: from `memberStarts[row]` to before
   * `memberStarts[row + 1]`; else empty.
   */
  readonly members: Int32Array;
  readonly memberStarts: Int32Array;
  /** By slot family, what would serve each; else empty. */
  readonly families: readonly Family[];
}

/** What the rows of a table are finished with. */
export interface TableFiles {
  readonly files: readonly ImageFile[];
  readonly encoded: readonly (Encoded | undefined)[];
  /** Widths that a picture is offered in, at most. */
  readonly widths: number;
  /** By page, the share of each in all visits. */
  readonly shareOf?: (page: string) => number;
}

/** The table of the sums of a whole survey, or of a part that has all of its rows for itself. */
export function tableOf(sums: RowSums, by: Grouping, given: TableFiles): RowTable {
  const { keys, thirdParty, portions, pages } = sums;
  const rows = keys
    .map((key, row) => ({
      ...{ row, key, thirdParty: thirdParty[row] === 1, perVisit: portions.at(row) },
    }))
    .filter((row) => isTold(by, row));
  const order = rows.sort(byWaste).map(({ row }) => row);
  const shares = sharesByRow(sums);
  const amounts = new Float64Array(rows.length * numbersPerAmount);
  rows.forEach(({ perVisit }, at) => amounts.set(amountsOf(perVisit), at * numbersPerAmount));
  const found = order.map((row) => filesByWaste(sums, shares(row)));
  return {
    keys: order.map((row) => keys[row]!),
    thirdParty: Uint8Array.from(order, (row) => thirdParty[row]!),
    amounts,
    files: Int32Array.from(found, ({ length }) => length),
    pages: Int32Array.from(order, (row) => pages[row]!),
    worst: Int32Array.from(found, ([first]) => first ?? -1),
    worstBytes: Float64Array.from(found, ([first]) => given.files[first ?? -1]?.bytes ?? 0),
    shares: Float64Array.from(given.shareOf ? order : [], (row) => given.shareOf!(keys[row]!)),
    ...membersOf(by === 'image' ? found : []),
    families: by === 'family' ? order.map((row) => familyIn(sums, row, shares(row), given)) : [],
  };
}

/** The tables of parts of which each has all of its rows for itself, as one. */
export function joinTables(tables: readonly RowTable[]): RowTable {
  const rows = tables.flatMap((table) =>
    table.keys.map((key, row) => ({
      ...{ table, row, key, thirdParty: table.thirdParty[row] === 1 },
      perVisit: portionIn(table, row),
    })),
  );
  rows.sort(byWaste);
  const amounts = new Float64Array(rows.length * numbersPerAmount);
  rows.forEach(({ perVisit }, at) => amounts.set(amountsOf(perVisit), at * numbersPerAmount));
  const column = (name: 'files' | 'pages' | 'worst') =>
    Int32Array.from(rows, ({ table, row }) => table[name][row]!);
  const numbers = (name: 'worstBytes' | 'shares') =>
    Float64Array.from(rows, ({ table, row }) => table[name][row]!);
  return {
    keys: rows.map(({ key }) => key),
    thirdParty: Uint8Array.from(rows, ({ thirdParty }) => Number(thirdParty)),
    ...{ amounts, files: column('files'), pages: column('pages'), worst: column('worst') },
    ...{ worstBytes: numbers('worstBytes'), shares: numbers('shares') },
    ...{ ...membersOf([]), families: [] },
  };
}

function membersOf(
  found: readonly (readonly number[])[],
): Pick<RowTable, 'members' | 'memberStarts'> {
  const memberStarts = new Int32Array(found.length + 1);
  found.forEach((some, row) => (memberStarts[row + 1] = memberStarts[row]! + some.length));
  return { members: Int32Array.from(found.flat()), memberStarts };
}

/** By image, the files of a row, those that waste the most first; else none. */
export function membersIn(
  { members, memberStarts }: Pick<RowTable, 'members' | 'memberStarts'>,
  row: number,
): number[] {
  return [...members.subarray(memberStarts[row] ?? 0, memberStarts[row + 1] ?? 0)];
}

/** What an average visit has of a row. */
export function portionIn({ amounts }: Pick<RowTable, 'amounts'>, row: number): Portion {
  return portionOf((at) => amounts[row * numbersPerAmount + at]!);
}

/** The entries of the shares of a row: from the first to before the second number. */
type Entries = readonly [from: number, to: number];

function sharesByRow({ keys, shares }: RowSums): (row: number) => Entries {
  const starts = new Int32Array(keys.length + 1);
  for (const row of shares.row) starts[row + 1]!++;
  for (let row = 0; row < keys.length; row++) starts[row + 1]! += starts[row]!;
  return (row) => [starts[row]!, starts[row + 1]!];
}

/** The files of a row, those that waste the most of it first. */
function filesByWaste({ shares }: RowSums, [from, to]: Entries): number[] {
  const wasted: { file: number; waste: number }[] = [];
  const sum = new ExactSums(1);
  for (let at = from; at < to; at++) {
    const file = shares.file[at]!;
    sum.addSum(0, shares.sums, at * 2);
    if (at + 1 < to && shares.file[at + 1] === file) continue;
    wasted.push({ file, waste: sum.at(0) });
    sum.clear(0);
  }
  return wasted.sort((a, b) => b.waste - a.waste).map(({ file }) => file);
}

function familyIn(
  { keys, shares, curves }: RowSums,
  row: number,
  [from, to]: Entries,
  { files, encoded, widths }: TableFiles,
): Family {
  const needed: NeededWidth[] = [];
  for (let at = from; at < to; at++) {
    const width = shares.width[at]!;
    if (width > 0)
      needed.push({ file: shares.file[at]!, width, weight: shares.sums.at(at * 2 + 1) });
  }
  needed.sort((a, b) => a.file - b.file || a.width - b.width);
  const demands = demandsOf(needed, { facts: { files }, encoded });
  return familyFrom(keys[row]!, curves[row]!, demands, widths);
}
