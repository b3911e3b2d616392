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
import type { RowTable } from './row-table.js';

/** The groupings whose rows are in several parts: all but that by page, as a part is made of whole pages. */
const spread = groupings.filter((by): by is Spread => by !== 'page');
type Spread = Exclude<Grouping, 'page'>;

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

/** The sums of a survey from those of its parts, whichever way it was parted. */
export function mergeParts(
  parts: readonly PartSums[],
  { files, encoded, pictures }: SurveyFiles,
  { widths }: Pick<Policy, 'widths'>,
): SurveySums {
  const given = { files, encoded, widths };
  const merged = record(spread, (by) =>
    tableOf(mergeRowSums(parts.map(({ rows }) => rows[by])), by, given),
  );
  const pages = joinTables(parts.map((part) => part.pages));
  return {
    tables: { ...merged, page: pages },
    files: fileTableOf(
      parts.map((part) => part.files),
      files,
      encoded,
      pictures,
    ),
  };
}
