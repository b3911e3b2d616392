import type { Budget } from '../../core/budgets/budget.js';
import type { GateRow, GateView } from '../views/gate.js';
import { commandOf, unmatchedWords } from '../words/gate.js';

/** What a gate found as the document `zealous-lynx.gate/1`; bytes and milliseconds are numbers. */
export function gateDocument(view: GateView) {
  const { survey, leftOut, sessions, judgements, unmatched, hosts } = view;
  return {
    format: 'zealous-lynx.gate/1',
    hosts,
    survey: survey && { id: survey.id, label: survey.label, startedAt: survey.startedAt },
    leftOut,
    sessions,
    holds: judgements.every(({ verdict }) => verdict !== 'broken') && unmatched.length === 0,
    judgements: judgements.map((row) => judgementDocument(row, view)),
    unmatched: unmatched.map((one) => ({
      budget: budgetDocument(one.budget),
      setting: one.setting,
      words: unmatchedWords(one),
    })),
  };
}

/** One judgement, as in every document. */
export function judgementDocument(row: GateRow, view: Pick<GateView, 'survey'>) {
  const { budget, subject, verdict, unit, value, allowed, interval, was, culprit, since, note } =
    row;
  return {
    budget: budgetDocument(budget),
    ...{ subject, verdict, unit, value, allowed, interval, was, culprit, since, note },
    command: commandOf(row, view),
  };
}

function budgetDocument(budget: Budget) {
  return Object.fromEntries(Object.entries(budget).filter(([, value]) => value !== undefined));
}
