import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import { leastRunsOverLimit, medianDifference, medianInterval } from '../load/bootstrap.js';
import { countedRuns } from '../load/session.js';
import { conditionsKey } from '../load/marked-session.js';
import type { MarkedSession } from '../load/marked-session.js';
import type { MarkerName } from '../load/markers.js';
import { summarise } from '../base/summary.js';
import { isMarker, isOfLoads, previous } from './budget.js';
import type { Budget } from './budget.js';
import type { Judged, Judgement, UnmatchedBudget, Verdict } from './judgement.js';

/** The sessions that are judged, and those that they may be set against. */
export interface JudgedSessions {
  /** The newest of each page under its conditions. */
  readonly sessions: readonly MarkedSession[];
  /** Every session of the workspace for the pages, the oldest first. */
  readonly all: readonly MarkedSession[];
  /** How often a session shows each kind of finding on its load. */
  readonly findingsOf: (session: MarkedSession) => readonly { readonly id: string }[];
}

/** Holds loads against the budgets of their markers. */
export function judgeLoads(
  { sessions, all, findingsOf }: JudgedSessions,
  budgets: readonly Budget[],
): Judged {
  const judgements: Judgement[] = [];
  const unmatched: UnmatchedBudget[] = [];
  for (const budget of budgets) {
    const { measure } = budget;
    if (!(isMarker(measure) || isOfLoads(budget)) || budget.from === 'field') continue;
    const setting = whatIsMissing(sessions, all, budget);
    if (setting) {
      unmatched.push({ budget, ...setting });
      continue;
    }
    for (const session of sessions.filter((one) => isMeant(one, budget)))
      judgements.push(
        ...(isMarker(measure)
          ? judgeSession(session, all, budget, measure)
          : [judgeFindings(session, budget, findingsOf(session))]),
      );
  }
  return { judgements, unmatched };
}

function isMeant({ page, conditions }: MarkedSession, budget: Budget): boolean {
  return (
    (budget.page === undefined || addressMatcher(budget.page)(page)) &&
    (budget.view === undefined || textMatcher(budget.view)(conditions?.view.name ?? '')) &&
    (budget.network === undefined || budget.network === conditions?.network.name)
  );
}

function whatIsMissing(
  sessions: readonly MarkedSession[],
  all: readonly MarkedSession[],
  budget: Budget,
): Pick<UnmatchedBudget, 'setting' | 'known'> | undefined {
  const { page, view, network, against = previous } = budget;
  const known = {
    page: [...new Set(sessions.map((one) => one.page))],
    view: [...new Set(sessions.flatMap(({ conditions }) => conditions?.view.name ?? []))],
    network: [...new Set(sessions.flatMap(({ conditions }) => conditions?.network.name ?? []))],
  };
  if (sessions.length === 0) return { setting: 'measure', known: [] };
  if (page !== undefined && !known.page.some(addressMatcher(page)))
    return { setting: 'page', known: known.page };
  if (view !== undefined && !known.view.some(textMatcher(view)))
    return { setting: 'view', known: known.view };
  if (network !== undefined && !known.network.includes(network))
    return { setting: 'network', known: known.network };
  const labels = [...new Set(all.map(({ label }) => label))];
  if (against !== previous && !labels.includes(against))
    return { setting: 'against', known: labels };
  // Each exists, but not together.
  return sessions.some((one) => isMeant(one, budget))
    ? undefined
    : { setting: 'page', known: known.page };
}

function subjectOf({ page, conditions }: MarkedSession): Judgement['subject'] {
  const view = conditions?.view.name ?? null;
  return { page, group: null, view, network: conditions?.network.name ?? null };
}

function judgeFindings(
  session: MarkedSession,
  budget: Budget,
  findings: readonly { readonly id: string }[],
): Judgement {
  const value = findings.filter(({ id }) => id === budget.finding).length;
  const allowed = budget.most ?? 0;
  const { page } = session;
  return {
    ...{ budget, value, allowed, unit: 'findings', subject: subjectOf(session) },
    verdict: value > allowed ? 'broken' : 'holds',
    culprit: value === 0 ? null : { url: page, page, view: null, placement: null, value },
    ...{ interval: null, was: null, note: null },
  };
}

function judgeSession(
  session: MarkedSession,
  all: readonly MarkedSession[],
  budget: Budget,
  marker: MarkerName,
): Judgement[] {
  const values = valuesOf(session, marker);
  const summary = summarise(values);
  if (!summary) return [];
  const earlier =
    budget.against === undefined ? undefined : earlierOf(session, all, budget.against);
  const before = earlier ? valuesOf(earlier, marker) : [];
  const was = summarise(before);
  if (budget.against !== undefined && !was) return [];
  const interval = medianInterval(values);
  const allowed = was ? was.median * (1 + (budget.margin ?? 0)) : (budget.most ?? 0);
  const isUpper = budget.hold === 'upper';
  const value = isUpper ? (interval?.[1] ?? summary.max) : summary.median;
  const grown = was
    ? medianDifference(
        before.map((one) => one * (1 + (budget.margin ?? 0))),
        values,
      )
    : null;
  const isShown = grown
    ? grown.shown && grown.difference > 0
    : interval !== null && (isUpper ? interval[1] : interval[0]) > allowed;
  const verdict: Verdict = value <= allowed ? 'holds' : isShown ? 'broken' : 'open';
  const subject = subjectOf(session);
  const { page, view } = subject;
  return [
    {
      ...{ budget, subject, verdict, value, allowed, interval },
      unit: marker === 'layoutShift' ? 'score' : 'ms',
      was: earlier && was ? { label: earlier.label, value: was.median } : null,
      culprit: { url: session.page, page, view, placement: null, value },
      note: verdict === 'open' ? tooFew(values.length, grown?.runsToSettle ?? null) : null,
    },
  ];
}

function valuesOf(session: MarkedSession, marker: MarkerName): number[] {
  return countedRuns(session).flatMap(({ markers }) => markers[marker] ?? []);
}

/** The session of the same page under the same conditions that has a label, or is the one before. */
function earlierOf(
  session: MarkedSession,
  all: readonly MarkedSession[],
  label: string,
): MarkedSession | undefined {
  const key = conditionsKey(session);
  return all.findLast(
    (one) =>
      one.id < session.id &&
      conditionsKey(one) === key &&
      (label === previous || one.label === label) &&
      countedRuns(one).length > 0,
  );
}

function tooFew(runs: number, toSettle: number | null): string {
  const needed = toSettle ?? (runs < leastRunsOverLimit ? leastRunsOverLimit : null);
  return needed === null
    ? `the ${runs} runs scatter too much to tell`
    : `${runs} runs are too few to tell; about ${Math.max(needed, runs + 1)} would`;
}
