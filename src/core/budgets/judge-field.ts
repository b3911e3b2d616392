import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import { groupBy } from '../base/group-by.js';
import type { MarkerName } from '../load/markers.js';
import { isMarker, previous } from './budget.js';
import type { Budget } from './budget.js';
import type { Judged, Judgement, UnmatchedBudget } from './judgement.js';

/** What visitors measured, as budgets see it: the 75th percentile of a day. */
export interface JudgedMeasurement {
  readonly date: string;
  readonly page: string | null;
  readonly group: string | null;
  readonly marker: MarkerName;
  readonly value: number;
}

/** Holds the newest measurements of visitors against the budgets that are about them. */
export function judgeField(
  measurements: readonly JudgedMeasurement[],
  budgets: readonly Budget[],
): Judged {
  const judgements: Judgement[] = [];
  const unmatched: UnmatchedBudget[] = [];
  for (const budget of budgets) {
    if (!isMarker(budget.measure) || budget.from !== 'field') continue;
    const meant = measurements.filter((one) => isMeant(one, budget));
    if (meant.length === 0) {
      const [setting, known] = whatThereIs(measurements, budget);
      unmatched.push({ budget, setting, known });
    }
    for (const of of groupBy(meant, ({ page, group }) => page ?? group).values()) {
      const inTime = of.toSorted((a, b) => (a.date < b.date ? -1 : 1));
      const newest = inTime.at(-1)!;
      const before = inTime.at(-2);
      if (budget.against !== undefined && (budget.against !== previous || !before)) continue;
      const was = budget.against === undefined ? undefined : before;
      const allowed = was ? was.value * (1 + (budget.margin ?? 0)) : (budget.most ?? 0);
      const { page, group, value } = newest;
      judgements.push({
        ...{ budget, value, allowed, subject: { page, group, view: null, network: null } },
        verdict: value > allowed ? 'broken' : 'holds',
        unit: budget.measure === 'layoutShift' ? 'score' : 'ms',
        was: was ? { label: was.date.slice(0, 10), value: was.value } : null,
        culprit: null,
        ...{ interval: null, note: null },
      });
    }
  }
  return { judgements, unmatched };
}

function isMeant({ page, group, marker }: JudgedMeasurement, budget: Budget): boolean {
  return (
    marker === budget.measure &&
    (budget.page === undefined || (page !== null && addressMatcher(budget.page)(page))) &&
    (budget.group === undefined || (group !== null && textMatcher(budget.group)(group)))
  );
}

function whatThereIs(
  measurements: readonly JudgedMeasurement[],
  budget: Budget,
): [UnmatchedBudget['setting'], string[]] {
  const of = measurements.filter(({ marker }) => marker === budget.measure);
  if (of.length === 0) return ['measure', [...new Set(measurements.map(({ marker }) => marker))]];
  return budget.group === undefined
    ? ['page', [...new Set(of.flatMap(({ page }) => page ?? []))]]
    : ['group', [...new Set(of.flatMap(({ group }) => group ?? []))]];
}
