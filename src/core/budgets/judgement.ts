import type { Budget } from './budget.js';
import type { Culprit, MeasureUnit } from './measures/measure.js';

/** What a budget was held against: a page, a page group, a view; `null` where all of them are meant. */
export interface BudgetSubject {
  readonly page: string | null;
  readonly group: string | null;
  readonly view: string | null;
  /** Of markers: the network of the loads. */
  readonly network: string | null;
}

/**
 * What became of it: it holds, it is broken, or it is open, where the measurements are too few to tell.
 */
export type Verdict = 'holds' | 'broken' | 'open';

/** A budget held against one subject. */
export interface Judgement {
  readonly budget: Budget;
  readonly subject: BudgetSubject;
  readonly verdict: Verdict;
  readonly unit: MeasureUnit;
  readonly value: number;
  readonly allowed: number;
  /** Where the value is a median: the ends of its interval of 95 % confidence; `null` of too few measurements. */
  readonly interval: readonly [low: number, high: number] | null;
  /** What the value was in the survey or session that it is set against; `null` where it is set against none. */
  readonly was: { readonly label: string; readonly value: number } | null;
  readonly culprit: Culprit | null;
  /** Of what is open: why, and what would tell. */
  readonly note: string | null;
}

/** A budget that names nothing that exists. */
export interface UnmatchedBudget {
  readonly budget: Budget;
  /** Which of its settings, and what there is. */
  readonly setting: 'page' | 'group' | 'view' | 'network' | 'against' | 'measure';
  readonly known: readonly string[];
}

export interface Judged {
  readonly judgements: readonly Judgement[];
  readonly unmatched: readonly UnmatchedBudget[];
}

/** The broken ones first, the worst of them first; then the open ones, then those that hold. */
export function inOrder(judgements: readonly Judgement[]): Judgement[] {
  const rank = { broken: 0, open: 1, holds: 2 };
  return judgements.toSorted(
    (a, b) => rank[a.verdict] - rank[b.verdict] || excess(b) - excess(a) || b.value - a.value,
  );
}

/** By how many times a value is over what is allowed. */
function excess({ value, allowed }: Judgement): number {
  if (allowed > 0) return value / allowed;
  return value > 0 ? Number.MAX_VALUE : 1;
}

/** Names a judgement from one time to the next: its budget, and its subject. */
export function keyOf({ budget, subject }: Pick<Judgement, 'budget' | 'subject'>): string {
  const { page, group, view, network } = subject;
  return JSON.stringify([budget.name, page, group, view, network]);
}
