import type { ComparedSurveys, SurveySide } from '../../core/rank/survey-comparison.js';
import { signed } from './change.js';
import { formatBytes, formatShare } from './units.js';

/** One number of two surveys, in words. */
export interface SurveyLine {
  readonly title: string;
  readonly before: string;
  readonly after: string;
  readonly change: string;
  readonly percent: string;
}

/** The sums of two surveys for an average visit, side by side. */
export function surveyLines({ comparison: { before, after } }: ComparedSurveys): SurveyLine[] {
  const bytes = (valueOf: (side: SurveySide) => number) => ({ valueOf, format: formatBytes });
  const counts = (valueOf: (side: SurveySide) => number) => ({ valueOf, format: String });
  const measures = {
    pages: counts(({ pages }) => pages),
    'image files': counts(({ files }) => files),
    'image bytes per visit': bytes(({ perVisit }) => perVisit.sentBytes),
    needed: bytes(({ perVisit }) => perVisit.neededBytes),
    wasted: bytes(({ perVisit }) => perVisit.wasteBytes),
    'not judged': bytes(({ perVisit }) => perVisit.unknownBytes),
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
