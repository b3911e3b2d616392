import { array } from 'yup';
import type { InferType, TestContext } from 'yup';
import { aboutOf, budgetedFindings, isMarker, measureNames } from '../../core/budgets/budget.js';
import type { Budget } from '../../core/budgets/budget.js';
import { budgetName } from '../../core/budgets/budget-name.js';
import { budgetParties, imageRoles } from '../../core/budgets/filters.js';
import { surveyMeasures } from '../../core/budgets/measures/index.js';
import type { SurveyMeasure } from '../../core/budgets/measures/measure.js';
import { requestTypes } from '../../core/load/request.js';
import { numberFrom, oneOf, settingsOf, shortText } from './checks.js';

const knownFinding = 'the id of a finding on images, files, services or loads (docs/findings.md)';

const budget = settingsOf({
  name: shortText(),
  measure: oneOf(measureNames).required(`one of ${measureNames.join(', ')}`),
  page: shortText(),
  group: shortText(),
  view: shortText(),
  type: oneOf(requestTypes),
  image: oneOf(imageRoles),
  party: oneOf(budgetParties),
  host: shortText(),
  finding: shortText().test(
    'known',
    knownFinding,
    (id) => id === undefined || budgetedFindings.has(id),
  ),
  most: numberFrom(0, 1e12),
  against: shortText(),
  margin: numberFrom(-1, 100),
  hold: oneOf(['median', 'upper'] as const),
  network: shortText(),
  from: oneOf(['clock', 'field'] as const),
  reason: shortText().required('a reason, which is shown when the budget does not hold'),
}).test('sound', '', (value, context) => {
  const flaw = value.measure === undefined ? undefined : flawOf(value);
  return flaw === undefined || context.createError({ message: flaw });
});

/** The budgets in the config file. */
export const budgetsSchema = array()
  .of(budget)
  .typeError('a list of budgets')
  .test('different', '', (budgets, context) => contradiction(budgets, context));

/** What a budget must be that this one is not, in words. */
function flawOf(one: Partial<Budget>): string | undefined {
  const measure = one.measure!;
  const ofSurvey: SurveyMeasure | undefined = isMarker(measure)
    ? undefined
    : surveyMeasures[measure];
  const filters = (['type', 'image', 'party', 'host', 'finding'] as const).filter(
    (name) => one[name] !== undefined && !ofSurvey?.filters.includes(name),
  );
  const takes = ofSurvey ? ofSurvey.filters.join(', ') : 'page, view, network, hold, from';
  if (filters.length > 0) return `${measure} without ${filters.join(', ')}: it takes ${takes}`;
  if (one.page !== undefined && one.group !== undefined)
    return 'a budget of a page or of a group, not of both';
  if (ofSurvey) {
    const foreign = (['hold', 'network', 'from'] as const).filter((name) => one[name]);
    if (foreign.length > 0)
      return `${measure} without ${foreign.join(', ')}: only markers of loads have that`;
  } else if (one.group !== undefined && one.from !== 'field')
    return 'a page: loads of clock are of pages (groups only with from: field)';
  if (measure === 'finding') {
    if (one.finding === undefined) return `finding: ${knownFinding}`;
    return one.margin === undefined ? undefined : 'most, and no margin: findings are counted';
  }
  if (ofSurvey?.isRelative) {
    return one.most === undefined || one.margin !== undefined
      ? 'most (bytes that a new image may have), and no margin'
      : undefined;
  }
  if ((one.most === undefined) === (one.margin === undefined))
    return 'either most (the limit itself), or margin with against (a part above an earlier one)';
  if ((one.margin === undefined) !== (one.against === undefined))
    return 'margin and against together: how much more than which label';
  if (one.against !== undefined && one.hold === 'upper')
    return 'no hold: upper with against: two medians are set against each other';
  return undefined;
}

/** Two budgets of the same number: one of them could only be in the other's way. */
function contradiction(
  budgets: readonly InferType<typeof budget>[] | undefined,
  context: TestContext,
) {
  const seen = new Map<string, number>();
  for (const [at, one] of (budgets ?? []).entries()) {
    if (one?.measure === undefined) continue;
    const keys = [aboutOf(one), ...(one.name === undefined ? [] : [`name ${one.name}`])];
    for (const key of keys) {
      const before = seen.get(key);
      if (before !== undefined)
        return context.createError({
          path: `${context.path}[${at}]`,
          message: key.startsWith('name')
            ? `a name of its own: budgets[${before}] has it`
            : `one budget for a number: budgets[${before}] is about the same`,
          params: { originalValue: one.name ?? one.measure },
        });
      seen.set(key, at);
    }
  }
  return true;
}

/** Completes the budgets of a config file with their names. */
export function budgetsOf(budgets: InferType<typeof budgetsSchema>): Budget[] {
  return (budgets ?? []).map((one) => {
    const against = one.measure === 'newImage' ? (one.against ?? 'previous') : one.against;
    const whole = { ...one, against };
    return { ...whole, name: one.name ?? budgetName(whole) };
  });
}
