import type { Finding } from '../image/finding.js';
import type { Placement } from '../../slots/placement.js';
import type { Policy } from '../../policy/policy.js';
import type { SurveyedPage } from '../../survey/survey.js';

/** All that a check of a page may look at. */
export interface PageCase {
  readonly page: SurveyedPage;
  /** In all views. */
  readonly placements: readonly Placement[];
  readonly policy: Policy;
}

/** Looks at one page; says what it found, or nothing. */
export type PageCheck = (page: PageCase) => Finding | undefined;
