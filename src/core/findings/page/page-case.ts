import type { Policy } from '../../policy/policy.js';
import type { Placement } from '../../slots/placement.js';
import type { SurveyedPage } from '../../survey/survey.js';
import type { FindingData, FindingKind } from '../finding.js';

/** What a check of a page can use. */
export interface PageCase {
  readonly page: SurveyedPage;
  /** In all views. */
  readonly placements: readonly Placement[];
  readonly policy: Policy;
}

/** A kind of finding about one page. */
export interface PageFinding<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  /** Looks at one page; answers with the evidence, or with nothing. */
  check(page: PageCase): Data | undefined;
}

/** Declares a kind of finding about pages. */
export function pageFinding<const Id extends string, Data extends FindingData>(
  kind: PageFinding<Id, Data>,
): PageFinding<Id, Data> {
  return kind;
}
