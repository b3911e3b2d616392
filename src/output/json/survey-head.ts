import type { SurveyHead } from '../../core/survey/survey.js';

/** The head of a survey, as in every document. */
export function surveyHeadDocument(head: SurveyHead, pages: number) {
  const { id, label, startedAt, finishedAt, starts, views } = head;
  return { id, label, startedAt, finishedAt, starts, pages, views };
}
