import type { Judgement, UnmatchedBudget } from '../../core/budgets/judgement.js';
import type { View } from '../../core/visitors/view.js';

/** A judgement, and since when it has been so. */
export interface GateRow extends Judgement {
  readonly since: { readonly label: string; readonly at: string; readonly atLeast: boolean } | null;
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
  readonly sessions: readonly string[];
  /** The broken ones first. */
  readonly judgements: readonly GateRow[];
  readonly unmatched: readonly UnmatchedBudget[];
  /** The most that are listed of those that hold. */
  readonly top: number;
}
