import type { SurveyHead } from '../../core/survey/survey.js';

/** What a survey is, as every document tells it. */
export function surveyHeadDocument(head: SurveyHead, pages: number) {
  const { id, label, startedAt, finishedAt, starts, views } = head;
  return { id, label, startedAt, finishedAt, starts, pages, views };
}
