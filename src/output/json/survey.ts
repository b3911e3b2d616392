import type { SurveyView } from '../views/survey.js';
import { surveyHeadDocument } from './survey-head.js';

/** A survey as the document `zealous-lynx.survey/1`. */
export function surveyDocument({ survey, pages, skipped, missing, takenOver }: SurveyView) {
  return {
    format: 'zealous-lynx.survey/1',
    survey: surveyHeadDocument(survey, pages.length),
    pages: pages.map(({ error, ...page }) => ({ ...page, ...(error === null ? {} : { error }) })),
    skipped,
    missingImages: missing,
    ...(takenOver && { takenOver }),
  };
}
