import type { Grouping } from '../core/rank/groupings.js';
import type { RankRow } from '../core/rank/rank-view.js';
import { causes } from '../core/waste/waste.js';
import { escaped } from './markdown.js';
import { csvOf } from './csv.js';
import type { Cell } from './csv.js';
import type { RankDrawing } from './terminal/rank.js';
import { causeTitles, nameOf, originOf } from './rank-words.js';
import { count, formatBytes, formatShare } from './units.js';

/** A ranking as CSV (RFC 4180): one row a row, bytes in an average visit as whole numbers. */
export function rankCsv(drawing: RankDrawing): string {
  return csvOf(allRows(drawing).map((row) => recordOf(row, drawing.by)));
}

/** A ranking as a Markdown table, for a page that people read. */
export function rankMarkdown(drawing: RankDrawing): string {
  const { total, by, sheet } = drawing;
  const origin = originOf(sheet.survey);
  const cells = allRows(drawing).map((row) => {
    const { perVisit, files, pages } = row;
    return [
      nameOf(row, by, origin),
      ...(row.family ? [row.family.where] : []),
      String(files),
      String(pages),
      formatBytes(perVisit.sentBytes),
      formatBytes(perVisit.neededBytes),
      formatBytes(perVisit.wasteBytes),
      formatShare(perVisit.wasteBytes, total.wasteBytes),
      row.thirdParty ? 'third party' : '',
    ];
  });
  const titles = [
    by === 'family' ? 'slot' : by,
    ...(by === 'family' ? ['where'] : []),
    ...['files', 'pages', 'sent', 'needed', 'waste', 'of all', ''],
  ];
  const line = (texts: readonly string[]) => `| ${texts.map(escaped).join(' | ')} |`;
  const split = causes
    .filter((cause) => total.causes[cause] > 0)
    .map((cause) => `${causeTitles[cause]} ${formatBytes(total.causes[cause])}`);
  return [
    `An average visit is sent ${formatBytes(total.sentBytes)} of images and wastes ${formatBytes(total.wasteBytes)}: ${split.join(', ')}.`,
    '',
    line(titles),
    line(titles.map(() => '---')),
    ...cells.map(line),
    ...(drawing.leftOut > 0 ? ['', `${count(drawing.leftOut, 'more row')} left out.`] : []),
  ].join('\n');
}

function allRows({ rows, thirdParty }: RankDrawing): RankRow[] {
  return [...rows, ...thirdParty];
}

function recordOf(row: RankRow, by: Grouping): Record<string, Cell> {
  const { perVisit, worst, family } = row;
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
