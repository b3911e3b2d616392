import type { CompareSurveysView } from '../views/compare-surveys.js';
import { surveyLines } from '../words/survey-lines.js';
import { escaped } from './markdown.js';

/** The totals of two surveys as a Markdown table, to be pasted into a ticket. */
export function compareSurveysMarkdown({ compared }: CompareSurveysView): string {
  return [
    `**${escaped(compared.before.label)} and ${escaped(compared.after.label)}**, an average visit`,
    '',
    '| | before | after | change | percent |',
    '| --- | ---: | ---: | ---: | ---: |',
    ...surveyLines(compared).map(
      ({ title, before, after, change, percent }) =>
        `| ${[title, before, after, change, percent].join(' | ')} |`,
    ),
  ].join('\n');
}
