import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import { groupBy } from '../base/group-by.js';
import { isMarker, isOfLoads, previous } from './budget.js';
import type { Budget } from './budget.js';
import type { BudgetSubject, Judged, Judgement, UnmatchedBudget } from './judgement.js';
import type { MeasuredSurvey } from './measured-survey.js';
import type { MeasuredValue, SurveyMeasure } from './measures/measure.js';
import { surveyMeasures } from './measures/index.js';

/** Finds the survey that a budget sets another one against; `undefined` where there is none. */
export type EarlierSurvey = (label: string) => MeasuredSurvey | undefined;

/** Holds a survey against the budgets of its numbers. */
export function judgeSurvey(
  survey: MeasuredSurvey,
  budgets: readonly Budget[],
  earlierOf: EarlierSurvey,
): Judged {
  const judgements: Judgement[] = [];
  const unmatched: UnmatchedBudget[] = [];
  for (const budget of budgets) {
    if (isMarker(budget.measure) || isOfLoads(budget)) continue;
    const measure: SurveyMeasure = surveyMeasures[budget.measure];
    const setting = whatIsMissing(survey, budget);
    if (setting) {
      unmatched.push({ budget, ...setting });
      continue;
    }
    const earlier = budget.against === undefined ? undefined : earlierOf(budget.against);
    if (budget.against !== undefined && !earlier) {
      // The first survey has none before it: nothing can have grown.
      if (budget.against !== previous) unmatched.push({ budget, setting: 'against', known: [] });
      continue;
    }
    for (const { subject, visits } of subjectsOf(survey, budget)) {
      const { value, culprit } = measure.of(survey, visits, budget, earlier);
      const was =
        earlier && !measure.isRelative
          ? earlierValue(measure, earlier, budget, subject)
          : undefined;
      // What was not there cannot have grown.
      if (earlier && !measure.isRelative && !was) continue;
      const allowed = was ? was.value * (1 + (budget.margin ?? 0)) : (budget.most ?? 0);
      judgements.push({
        ...{ budget, subject, unit: measure.unit, value, allowed, culprit },
        verdict: value > allowed ? 'broken' : 'holds',
        was: earlier && was ? { label: earlier.label, value: was.value } : null,
        ...{ interval: null, note: null },
      });
    }
  }
  return { judgements, unmatched };
}

function earlierValue(
  measure: SurveyMeasure,
  earlier: MeasuredSurvey,
  budget: Budget,
  { page, group, view }: BudgetSubject,
): MeasuredValue | undefined {
  const visits = [...earlier.visits.keys()].filter((at) => {
    const visit = earlier.visits[at]!;
    return (
      (page ?? visit.page) === visit.page &&
      (group ?? visit.group) === visit.group &&
      (view ?? visit.view) === visit.view
    );
  });
  return visits.length > 0 ? measure.of(earlier, visits, budget, undefined) : undefined;
}

/** The setting of a budget that names nothing in a survey, and what there is. */
function whatIsMissing(
  survey: MeasuredSurvey,
  { page, group, view }: Budget,
): Pick<UnmatchedBudget, 'setting' | 'known'> | undefined {
  const known = {
    page: survey.pages.map(({ url }) => url),
    group: [...new Set(survey.visits.map((visit) => visit.group))],
    view: [...new Set(survey.visits.map((visit) => visit.view))],
  };
  if (page !== undefined && !known.page.some(addressMatcher(page)))
    return { setting: 'page', known: known.page };
  if (group !== undefined && !known.group.some(textMatcher(group)))
    return { setting: 'group', known: known.group };
  if (view !== undefined && !known.view.some(textMatcher(view)))
    return { setting: 'view', known: known.view };
  return undefined;
}

/** What a budget is about in a survey, each with its visits. */
function subjectsOf(
  { visits }: MeasuredSurvey,
  { page, group, view }: Budget,
): { readonly subject: BudgetSubject; readonly visits: readonly number[] }[] {
  const isPage = page === undefined ? undefined : addressMatcher(page);
  const isGroup = group === undefined ? undefined : textMatcher(group);
  const isView = view === undefined ? undefined : textMatcher(view);
  const meant = [...visits.keys()].filter((at) => {
    const visit = visits[at]!;
    return (
      visit.weight > 0 &&
      (isPage?.(visit.page) ?? true) &&
      (isGroup?.(visit.group) ?? true) &&
      (isView?.(visit.view) ?? true)
    );
  });
  const subjectOf = (at: number): BudgetSubject => ({
    page: isPage ? visits[at]!.page : null,
    group: isGroup ? visits[at]!.group : null,
    view: isView ? visits[at]!.view : null,
    network: null,
  });
  return [...groupBy(meant, (at) => JSON.stringify(subjectOf(at))).values()].map((places) => ({
    subject: subjectOf(places[0]!),
    visits: places,
  }));
}
