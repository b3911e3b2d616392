import type { SurveyEntry } from '../../core/survey/survey.js';
import { surveyHeadDocument } from './survey-head.js';

/** The surveys of a workspace as the document `zealous-lynx.surveys/1`; sizes in bytes. */
export function surveysDocument(
  surveys: readonly SurveyEntry[],
  size: { readonly database: number; readonly bodies: number },
) {
  return {
    format: 'zealous-lynx.surveys/1',
    size,
    surveys: surveys.map(({ skipped, files, bytes, pages, ...head }) => ({
      ...surveyHeadDocument(head, pages),
      skipped,
      files,
      bytes,
    })),
  };
}
