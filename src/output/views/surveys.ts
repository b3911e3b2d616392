import type { SurveySummary } from '../../core/survey/survey.js';

/** What the surveys of a workspace are shown from; sizes in bytes. */
export interface SurveysView {
  readonly surveys: readonly SurveySummary[];
  readonly size: { readonly database: number; readonly bodies: number };
  /** What a check has found; `null` where none was asked for. */
  readonly check: WorkspaceCheck | null;
}

/** What a check of a workspace has found. */
export interface WorkspaceCheck {
  /** What is wrong with the database, in its own words; empty if it is sound. */
  readonly database: readonly string[];
  /** Bodies that should be there: images, and what was made of them. */
  readonly bodies: number;
  /** Bodies that were damaged, and have been taken away. */
  readonly damaged: number;
  /** Bodies that were not there. */
  readonly missing: number;
}
