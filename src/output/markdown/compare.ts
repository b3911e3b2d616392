import type { CompareView } from '../views/compare.js';
import { changeWords } from '../words/change.js';
import { comparisonLines } from '../words/comparison-lines.js';
import { agreementLines } from '../words/tried-before.js';
import { escaped } from './markdown.js';

/** Comparisons as Markdown tables, one a page, to be pasted into a ticket. */
export function compareMarkdown({ pages }: CompareView): string {
  return pages
    .map((page) =>
      [
        `**${escaped(page.before.label)} and ${escaped(page.after.label)}**: ${escaped(page.before.page)}`,
        '',
        '| median | before | after | change | percent | 95 % interval | verdict |',
        '| --- | ---: | ---: | ---: | ---: | ---: | --- |',
        ...comparisonLines(page).map(({ title, change, format, words }) => {
          const told = changeWords(change, format, words);
          return `| ${[title, told.before, told.after, told.moved, told.percent, told.interval, told.verdict].join(' | ')} |`;
        }),
        ...(page.tried
          ? ['', ...agreementLines(page.tried, page.comparison).map((line) => `- ${line}`)]
          : []),
      ].join('\n'),
    )
    .join('\n\n');
}
