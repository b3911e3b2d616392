import type { ComparedSurveys } from '../../core/rank/survey-comparison.js';

/** What two surveys are shown from. */
export interface CompareSurveysView {
  readonly compared: ComparedSurveys;
  readonly top: number;
}
