import type { Change } from '../core/load/comparison.js';
import { markerNames, markerTitles } from '../core/load/markers.js';
import { requestTypes } from '../core/load/request.js';
import { csvOf } from './csv.js';
import { escaped } from './markdown.js';
import type { CompareSheet } from './terminal/compare.js';
import { changeWords, formatMarker, sizeWords, timeWords } from './change-words.js';
import type { Words } from './change-words.js';
import { formatBytes } from './units.js';

/** One number of a comparison: what it is called, and how it is told. */
interface Line {
  readonly title: string;
  readonly change: Change;
  readonly format: (value: number) => string;
  readonly words: Words;
}

/** Comparisons as Markdown tables, one a page, to be pasted into a ticket. */
export function compareMarkdown(sheets: readonly CompareSheet[]): string {
  return sheets
    .map((sheet) =>
      [
        `**${escaped(sheet.before.label)} and ${escaped(sheet.after.label)}**: ${escaped(sheet.before.page)}`,
        '',
        '| median of | before | after | change | per cent | 95 % of it between | what the runs show |',
        '| --- | ---: | ---: | ---: | ---: | ---: | --- |',
        ...linesOf(sheet).map(({ title, change, format, words }) => {
          const told = changeWords(change, format, words);
          return `| ${[title, told.before, told.after, told.moved, told.percent, told.interval, told.verdict].join(' | ')} |`;
        }),
      ].join('\n'),
    )
    .join('\n\n');
}

/** Comparisons as CSV, one line a number; times in milliseconds, sizes in bytes. */
export function compareCsv(sheets: readonly CompareSheet[]): string {
  return csvOf(
    sheets.flatMap((sheet) =>
      linesOf(sheet).map(({ title, change }) => ({
        page: sheet.before.page,
        measure: title,
        before: change.before?.median ?? null,
        after: change.after?.median ?? null,
        difference: change.difference,
        percent: change.percent,
        low: change.interval?.[0] ?? null,
        high: change.interval?.[1] ?? null,
        verdict: change.verdict,
        runsToSettle: change.runsToSettle,
      })),
    ),
  );
}

function linesOf({ comparison }: CompareSheet): Line[] {
  const { markers, requestCount, bytes, bytesByType } = comparison;
  const all: Line[] = [
    ...markerNames.map((name) => ({
      title: markerTitles[name],
      change: markers[name],
      format: (value: number) => formatMarker(name, value),
      words: name === 'layoutShift' ? sizeWords : timeWords,
    })),
    { title: 'requests', change: requestCount, format: String, words: sizeWords },
    { title: 'bytes', change: bytes, format: formatBytes, words: sizeWords },
    ...requestTypes.map((type) => ({
      title: `bytes: ${type}`,
      change: bytesByType[type],
      format: formatBytes,
      words: sizeWords,
    })),
  ];
  return all.filter(
    ({ title, change: { before, after } }) =>
      (before ?? after) && (!title.startsWith('bytes: ') || before?.max || after?.max),
  );
}
