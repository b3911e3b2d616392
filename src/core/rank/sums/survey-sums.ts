import { record } from '../../base/record.js';
import type { Policy } from '../../policy/policy.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { Pictures } from '../../survey/pictures.js';
import type { Ledger } from '../../waste/ledger.js';
import { groupings } from '../groupings.js';
import type { Grouping } from '../groupings.js';
import { pageShares } from '../page-shares.js';
import { fileSumsOf, fileTableOf } from './file-sums.js';
import type { FileSums, FileTable } from './file-sums.js';
import { mergeRowSums, rowSumsOf } from './row-sums.js';
import type { RowSums } from './row-sums.js';
import { joinTables, tableOf } from './row-table.js';
import type { RowTable, TableFiles } from './row-table.js';

/** The groupings whose rows are in several parts: all but that by page, as a part is made of whole pages. */
export const spread = groupings.filter((by): by is Spread => by !== 'page');
export type Spread = Exclude<Grouping, 'page'>;

/** What a ranking sums up of a part of a survey: some of its pages, with all their visits. */
export interface PartSums {
  readonly rows: Readonly<Record<Spread, RowSums>>;
  /** The pages of the part, which no other has. */
  readonly pages: RowTable;
  readonly files: FileSums;
}

/** What a ranking sums up of a whole survey. */
export interface SurveySums {
  readonly tables: Readonly<Record<Grouping, RowTable>>;
  readonly files: FileTable;
}

/** What the sums of parts are put together with. */
export interface SurveyFiles {
  readonly files: readonly ImageFile[];
  readonly encoded: readonly (Encoded | undefined)[];
  readonly pictures: Pictures;
}

/** Sums up a part of a survey. @param ledger of its visits, each with its weight among all of the survey */
export function partSumsOf(ledger: Ledger): PartSums {
  const { encoded, facts } = ledger;
  const given = { files: facts.files, encoded, widths: 0, shareOf: pageShares(ledger) };
  return {
    rows: record(spread, (by) => rowSumsOf(ledger, by)),
    pages: tableOf(rowSumsOf(ledger, 'page'), 'page', given),
    files: fileSumsOf(ledger),
  };
}

/** The sums of the parts of a survey, one after the other: they need not all be in memory. */
export interface SumsOfParts {
  readonly rows: (by: Spread) => Iterable<RowSums>;
  readonly pages: () => Iterable<RowTable>;
}

/** The rows of a whole survey from the sums of its parts, whichever way it was parted. */
export function mergeTable(by: Grouping, parts: SumsOfParts, given: TableFiles): RowTable {
  if (by === 'page') return joinTables([...parts.pages()]);
  return tableOf(mergeRowSums([...parts.rows(by)]), by, given);
}

/** The sums of a survey from those of its parts, all of them in memory. */
export function mergeParts(
  parts: readonly PartSums[],
  { files, encoded, pictures }: SurveyFiles,
  { widths }: Pick<Policy, 'widths'>,
): SurveySums {
  const sums = {
    rows: (by: Spread) => parts.map(({ rows }) => rows[by]),
    pages: () => parts.map(({ pages }) => pages),
  };
  const ofParts = parts.map((part) => part.files);
  return {
    tables: record(groupings, (by) => mergeTable(by, sums, { files, encoded, widths })),
    files: fileTableOf(ofParts, files, encoded, pictures),
  };
}
