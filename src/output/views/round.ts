import type { SurveyFigures } from '../../core/history/figures.js';
import type { GateRow } from './gate.js';
import type { MarkedSession } from '../../core/load/marked-session.js';
import type { UnmatchedBudget } from '../../core/budgets/judgement.js';

/** One round of a watch, as it is told. */
export interface RoundView {
  readonly hosts: readonly string[];
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  readonly finishedAt: string;
  readonly outcome: 'done' | 'down' | 'failed' | 'stopped';
  /** Of what it surveyed; `null` where it could not. */
  readonly figures: SurveyFigures | null;
  /** The newest loads of each page. */
  readonly sessions: readonly MarkedSession[];
  readonly judgements: readonly GateRow[];
  readonly unmatched: readonly UnmatchedBudget[];
  /** What is wrong, in a line each. */
  readonly troubles: readonly { readonly kind: string; readonly title: string }[];
  readonly told: number;
  readonly failedChannels: readonly { readonly channel: string; readonly reason: string }[];
  /** When the next one is due, ISO 8601; `null` after the last. */
  readonly next: string | null;
}
