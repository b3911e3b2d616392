import type { SurveyedPage } from './survey.js';

/** Whether none of a survey's pages could be surveyed: each failed to load, or was answered with an error. */
export function hasFailed(pages: readonly Pick<SurveyedPage, 'error' | 'status'>[]): boolean {
  return pages.every(({ error, status }) => error !== null && (status === null || status >= 400));
}
