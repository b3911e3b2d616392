import type { Grouping } from '../../core/rank/groupings.js';
import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankView } from '../views/rank.js';
import { csvOf } from './csv.js';
import type { Cell } from './csv.js';

/** A ranking as CSV (RFC 4180): a line for each row, bytes in an average visit as whole numbers. */
export function rankCsv({ rows, thirdParty, by }: RankView): string {
  return csvOf([...rows, ...thirdParty].map((row) => recordOf(row, by)));
}

function recordOf(row: RankRow, by: Grouping): Record<string, Cell> {
  const { perVisit, ofPage, worst, family } = row;
  return {
    [by]: by === 'family' ? (family?.slot ?? '') : by === 'image' ? (worst?.url ?? '') : row.key,
    ...(family && { where: family.where, kind: family.kind }),
    thirdParty: row.thirdParty ? 'yes' : 'no',
    files: row.files,
    pages: row.pages,
    sentBytes: perVisit.sentBytes,
    neededBytes: perVisit.neededBytes,
    wasteBytes: perVisit.wasteBytes,
    ...perVisit.causes,
    unknownBytes: perVisit.unknownBytes,
    ...(ofPage && {
      pageSentBytes: ofPage.sentBytes,
      pageNeededBytes: ofPage.neededBytes,
      pageWasteBytes: ofPage.wasteBytes,
    }),
    worstUrl: worst?.url ?? '',
    worstBytes: worst?.file.bytes ?? null,
    worstWidth: worst?.file.intrinsic?.width ?? null,
    worstHeight: worst?.file.intrinsic?.height ?? null,
    needWidth: worst?.need?.width ?? null,
    needHeight: worst?.need?.height ?? null,
    neededFileBytes: worst?.waste?.neededBytes ?? null,
    ...(family && { widths: family.plan.widths.join(' '), sizes: family.sizes ?? '' }),
  };
}
