import type { LoadFinding } from '../../core/findings/load/load-case.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import type { Run, Session, SessionSummary } from '../../core/load/session.js';
import type { Film } from '../../core/pixels/film.js';

/** One page's session with what it comes to. */
export interface ClockedPage {
  readonly session: Session;
  readonly summary: SessionSummary;
  readonly medianRun: Run;
  /** The findings of the median run. */
  readonly findings: readonly LoadFinding[];
  /** The film of the page; `null` if it was not filmed. */
  readonly film: Film | null;
  /** Where the HAR file of the median run lies. */
  readonly harFile: string;
}

/** What sessions are shown from. */
export interface ClockView {
  readonly sessions: readonly ClockedPage[];
  readonly choice: RequestChoice;
}
