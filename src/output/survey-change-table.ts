import { sumOf } from '../core/waste/portion.js';
import type { ComparedSurveys, SurveySide } from '../core/rank/survey-comparison.js';
import { signed } from './change-words.js';
import { csvOf } from './csv.js';
import { escaped } from './markdown.js';
import { formatBytes, formatShare } from './units.js';

/** One number of two surveys, as it is told. */
export interface SurveyLine {
  readonly title: string;
  readonly before: string;
  readonly after: string;
  readonly change: string;
  readonly percent: string;
}

/** What two surveys come to on an average visit, side by side. */
export function surveyLines({ comparison: { before, after } }: ComparedSurveys): SurveyLine[] {
  const bytes = (valueOf: (side: SurveySide) => number) => ({ valueOf, format: formatBytes });
  const counts = (valueOf: (side: SurveySide) => number) => ({ valueOf, format: String });
  const measures = {
    pages: counts(({ pages }) => pages),
    'image files': counts(({ files }) => files),
    'image bytes sent a visit': bytes(({ perVisit }) => perVisit.sentBytes),
    'of them needed': bytes(({ perVisit }) => perVisit.neededBytes),
    'of them wasted': bytes(({ perVisit }) => perVisit.wasteBytes),
    'bytes that cannot be judged': bytes(({ perVisit }) => perVisit.unknownBytes),
  };
  return Object.entries(measures).map(([title, { valueOf, format }]) => {
    const [was, is] = [valueOf(before), valueOf(after)];
    const share =
      was === 0 || was === is
        ? '–'
        : `${is < was ? '−' : '+'}${formatShare(Math.abs(is - was), was)}`;
    return {
      title,
      before: format(was),
      after: format(is),
      change: signed(is - was, format),
      percent: share,
    };
  });
}

/** The totals of two surveys as a Markdown table, to be pasted into a ticket. */
export function compareSurveysMarkdown(sheet: ComparedSurveys): string {
  return [
    `**${escaped(sheet.before.label)} and ${escaped(sheet.after.label)}**, an average visit`,
    '',
    '| | before | after | change | per cent |',
    '| --- | ---: | ---: | ---: | ---: |',
    ...surveyLines(sheet).map(
      ({ title, before, after, change, percent }) =>
        `| ${[title, before, after, change, percent].join(' | ')} |`,
    ),
  ].join('\n');
}

/** Every image and page of two surveys as CSV, a line each; sizes in bytes, those of a visit on average. */
export function compareSurveysCsv({ comparison }: ComparedSurveys): string {
  const none = sumOf([]);
  const rows = (what: 'image' | 'page') =>
    (what === 'image' ? comparison.images : comparison.pages).map(
      ({ before, after, by, bytes, perVisit }) => ({
        what,
        before: before?.url ?? null,
        after: after?.url ?? null,
        matchedBy: by,
        bytesBefore: before?.bytes ?? null,
        bytesAfter: after?.bytes ?? null,
        bytesChange: bytes,
        wasteBefore: Math.round((before?.perVisit ?? none).wasteBytes),
        wasteAfter: Math.round((after?.perVisit ?? none).wasteBytes),
        changePerVisit: Math.round(perVisit),
      }),
    );
  return csvOf([...rows('image'), ...rows('page')]);
}
