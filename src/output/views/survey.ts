import type { MissingImage } from '../../core/survey/missing-images.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../../core/survey/survey.js';

/** What a survey is shown from. */
export interface SurveyView {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  readonly missing: readonly MissingImage[];
  readonly interrupted: boolean;
  /** How many pages are listed. */
  readonly top: number;
}
