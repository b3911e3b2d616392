import type { SurveysView } from '../views/surveys.js';
import { surveyHeadDocument } from './survey-head.js';

/** The surveys of a workspace as the document `zealous-lynx.surveys/1`; sizes in bytes. */
export function surveysDocument({ surveys, size, check }: SurveysView) {
  return {
    format: 'zealous-lynx.surveys/1',
    size,
    ...(check && { check }),
    surveys: surveys.map(({ skipped, files, bytes, pages, ...head }) => ({
      ...surveyHeadDocument(head, pages),
      skipped,
      files,
      bytes,
    })),
  };
}
