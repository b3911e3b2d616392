import type { SurveySummary } from '../../core/survey/survey.js';

/** What the surveys of a workspace are shown from; sizes in bytes. */
export interface SurveysView {
  readonly surveys: readonly SurveySummary[];
  readonly size: { readonly database: number; readonly bodies: number };
}
