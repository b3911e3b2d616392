import { chooseRows, portionOfPage } from '../chosen-rows.js';
import type { ChosenRows } from '../chosen-rows.js';
import { mostUnjudged } from '../rank-view.js';
import type { RankQuery, RankRow, RankedRows } from '../rank-view.js';
import type { RankedImage } from '../ranked-image.js';
import type { FileTable } from './file-sums.js';
import type { RowTable } from './row-table.js';
import { membersIn, portionIn } from './row-table.js';

/** What rows are shown from: the sums of one grouping, and of all files. */
export interface ShownSums {
  readonly table: RowTable;
  readonly files: FileTable;
}

/** Rows that were chosen, and the files that have to be known to show them. */
export interface SummedChoice {
  readonly chosen: ChosenRows;
  /** Places in the list of files, each once. */
  readonly wanted: readonly number[];
  /** Those that are listed. */
  readonly listed: readonly number[];
}

/** @param imageLimit how many images are listed in full */
export function chooseSummed(
  { table, files }: ShownSums,
  { by, sort, top }: Pick<RankQuery, 'by' | 'sort' | 'top'>,
  imageLimit: number,
): SummedChoice {
  const chosen = chooseRows(table, {
    ...{ sort, top },
    valuesOf: (row) => ({
      ...{ files: table.files[row]!, pages: table.pages[row]!, bytes: table.worstBytes[row]! },
    }),
  });
  const shown = [...chosen.rows, ...chosen.thirdParty];
  const members = shown.flatMap((row) => membersIn(table, row));
  const listed =
    by === 'image'
      ? firstOf(chosen.order, (row) => membersIn(table, row), Math.max(imageLimit, members.length))
      : [...files.order.subarray(0, imageLimit)];
  const wanted = new Set([
    ...shown.map((row) => table.worst[row]!),
    ...members,
    ...listed,
    ...files.unjudged.subarray(0, mostUnjudged),
  ]);
  wanted.delete(-1);
  return { chosen, wanted: [...wanted], listed };
}

/** The first files of rows, each once. */
function firstOf(
  rows: readonly number[],
  filesOf: (row: number) => readonly number[],
  most: number,
): number[] {
  const found = new Set<number>();
  for (const row of rows) {
    if (found.size >= most) break;
    for (const file of filesOf(row)) found.add(file);
  }
  return [...found].slice(0, most);
}

/**
 * The rows that were chosen, as `rowsOf` has them of a ledger.
 *
 * @param imageOf an image by the place of its file
 * @param hashOf the content hash by the place of a file
 */
export function summedRows(
  { table, files }: ShownSums,
  { chosen, wanted, listed }: SummedChoice,
  imageOf: (file: number) => RankedImage,
  hashOf: (file: number) => string,
): RankedRows {
  const shown = (row: number): RankRow => {
    const worst = table.worst[row]!;
    const perVisit = portionIn(table, row);
    return {
      ...{ key: table.keys[row]!, thirdParty: table.thirdParty[row] === 1 },
      perVisit: chosen.wholeOf(row),
      ofPage: table.shares.length > 0 ? portionOfPage(perVisit, table.shares[row]!) : null,
      images: membersIn(table, row).map(imageOf),
      ...{ files: table.files[row]!, pages: table.pages[row]! },
      worst: worst < 0 ? null : imageOf(worst),
      family: table.families[row] ?? null,
    };
  };
  const pictures = new Map(wanted.map((file) => [imageOf(file), hashOf(files.pictureOf[file]!)]));
  const { total, thirdPartyTotal, leftOut } = chosen;
  const { pictures: count, totals, unplaced, unjudged } = files;
  return {
    ...{ rows: chosen.rows.map(shown), thirdParty: chosen.thirdParty.map(shown), leftOut },
    files: {
      ...{ count: files.order.length, pictures: count, totals, unplaced },
      unjudged: {
        count: unjudged.length,
        first: Array.from(unjudged.subarray(0, mostUnjudged), imageOf),
      },
    },
    images: listed.map(imageOf),
    pictureOf: (image) => pictures.get(image) ?? image.file.contentHash,
    ...{ total, thirdPartyTotal },
  };
}
