import type { SurveySummary } from '../../core/survey/survey.js';

/** What the surveys of a workspace are shown from; sizes in bytes. */
export interface SurveysView {
  readonly surveys: readonly SurveySummary[];
  /** Numbers of the surveys that a program is at. */
  readonly running: readonly number[];
  readonly size: { readonly database: number; readonly bodies: number };
  /** What a check has found; `null` where none was asked for. */
  readonly check: WorkspaceCheck | null;
  /** What was thinned out; `null` where that was not asked for. */
  readonly thinned: ThinnedView | null;
}

/** What thinning out takes away, or would; sizes in bytes. */
export interface ThinnedView {
  readonly surveys: readonly Pick<SurveySummary, 'label' | 'startedAt' | 'pages'>[];
  readonly needed: readonly string[];
  readonly dryRun: boolean;
  /** Of bodies that only these surveys name. */
  readonly freed: number;
  readonly before: SurveysView['size'];
  readonly after: SurveysView['size'];
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
