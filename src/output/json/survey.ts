import type { MissingImage } from '../../core/survey/missing-images.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../../core/survey/survey.js';
import { surveyHeadDocument } from './survey-head.js';

/** What a survey came to. */
export interface Surveyed {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  readonly missing: readonly MissingImage[];
}

/** A survey as the document `zealous-lynx.survey/1`. */
export function surveyDocument({ survey, pages, skipped, missing }: Surveyed) {
  return {
    format: 'zealous-lynx.survey/1',
    survey: surveyHeadDocument(survey, pages.length),
    pages: pages.map(({ error, ...page }) => ({ ...page, ...(error === null ? {} : { error }) })),
    skipped,
    missingImages: missing,
  };
}
