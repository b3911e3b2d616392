import type { MissingImage } from '../../core/survey/missing-images.js';
import type { RankView } from './rank.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../../core/survey/survey.js';

/** What a survey comes to. */
export interface SurveyOutcome {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  readonly missing: readonly MissingImage[];
  /** Whether it was stopped before its end. */
  readonly interrupted: boolean;
  /** What was taken over from an earlier survey, where one was named. */
  readonly takenOver?: TakenOver;
}

/** What a survey took over from an earlier one, and what it visited again. */
export interface TakenOver {
  /** Label of the earlier survey. */
  readonly from: string;
  readonly pages: number;
  /** Files, documents among them, that servers were asked about. */
  readonly asked: number;
  /** The pages of the earlier survey that were visited again, and why. */
  readonly changed: readonly SkippedAddress[];
}

/** What a survey is shown from. */
export interface SurveyView extends SurveyOutcome {
  /** How many pages are listed. */
  readonly top: number;
  /** The ranking of its images, where their encodes are there. */
  readonly ranking?: RankView | undefined;
}
