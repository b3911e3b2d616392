import type { SurveysView } from '../views/surveys.js';
import { surveyHeadDocument } from './survey-head.js';

/** The surveys of a workspace as the document `zealous-lynx.surveys/1`; sizes in bytes. */
export function surveysDocument({ surveys, running, size, check, thinned }: SurveysView) {
  return {
    format: 'zealous-lynx.surveys/1',
    size,
    ...(check && { check }),
    ...(thinned && { thinned }),
    surveys: surveys.map(({ skipped, files, bytes, pages, thinnedAt, ...head }) => ({
      ...surveyHeadDocument(head, pages),
      skipped,
      files,
      bytes,
      ...(thinnedAt !== null && { thinnedAt }),
      ...(running.includes(head.id) && { isRunning: true }),
    })),
  };
}
