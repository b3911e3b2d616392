import type { FindingRow } from '../../core/rank/finding-rows.js';
import type { MuteRule } from '../../core/policy/mutes.js';
import type { RankResult } from '../../core/rank/rank-view.js';

/** What the findings of a survey by kind are shown from. */
export interface FindingsView {
  readonly rows: readonly FindingRow[];
  readonly result: RankResult;
  /** Its filters in words; empty if nothing is left out. */
  readonly narrowed: string;
  /** Whether a later call has to name the survey: it was named, or is not the newest. */
  readonly isNamed: boolean;
  /** What the policy mutes. */
  readonly muted: readonly MuteRule[];
  /** How many rows are shown. */
  readonly top: number;
}
