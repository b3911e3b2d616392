import type { Judgement, UnmatchedBudget } from '../../core/budgets/judgement.js';
import type { View } from '../../core/visitors/view.js';

/** The measurement from which on a budget has been broken. */
export interface Since {
  readonly label: string;
  /** ISO 8601, UTC. */
  readonly at: string;
  /** Whether it may have been broken before: what was measured then is not kept, or was not looked at. */
  readonly atLeast: boolean;
}

/** A judgement, and of what is broken since when. */
export interface GateRow extends Judgement {
  readonly since: Since | null;
}

/** A site held against its budgets, as it is shown. */
export interface GateView {
  readonly hosts: readonly string[];
  readonly survey: {
    readonly id: number;
    readonly label: string;
    readonly startedAt: string;
    readonly views: readonly View[];
  } | null;
  /** Labels of newer surveys that say nothing: interrupted, or without any page. */
  readonly leftOut: readonly string[];
  /** Labels of the sessions that were judged. */
  readonly sessions: readonly string[];
  /** The broken ones first. */
  readonly judgements: readonly GateRow[];
  readonly unmatched: readonly UnmatchedBudget[];
  /** The most that are listed of those that hold. */
  readonly top: number;
}
