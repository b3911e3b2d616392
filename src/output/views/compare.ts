import type { SessionComparison } from '../../core/load/comparison.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import { chooseRequests } from '../../core/load/request-view.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import { medianRun } from '../../core/load/session.js';
import type { Session } from '../../core/load/session.js';
import type { Looks } from '../../core/pixels/looks.js';

/** One page before and after. */
export interface ComparedPageView {
  readonly before: Session;
  readonly after: Session;
  readonly comparison: SessionComparison;
  readonly requests: readonly RequestChange[];
  readonly looks: Looks | null;
  /** What a trial had measured of the same page; `null` where none was named. */
  readonly tried: SessionComparison | null;
}

/** What a comparison is shown from. */
export interface CompareView<Page extends ComparedPageView = ComparedPageView> {
  readonly pages: readonly Page[];
  readonly choice: RequestChoice;
  /** Draws both waterfalls as well. */
  readonly waterfalls: boolean;
}

/** The median loads of both sides with the requests that were chosen. */
export function loadsOf({ before, after }: ComparedPageView, choice: RequestChoice) {
  return [before, after].map((session) => {
    const run = medianRun(session);
    return { session, run, chosen: chooseRequests(run.requests, choice) };
  });
}
