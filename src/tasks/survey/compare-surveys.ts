import type { Policy } from '../../core/policy/policy.js';
import { compareSurveys } from '../../core/rank/survey-comparison.js';
import type { ComparedSurveys } from '../../core/rank/survey-comparison.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';

/**
 * Compares the surveys of two labels, both judged by the same policy.
 *
 * @throws NotFoundError when a label is not known.
 */
export async function compareSurveyLabels(
  workspace: Workspace,
  before: string,
  after: string,
  policy: Policy,
  options: TaskOptions = {},
): Promise<ComparedSurveys> {
  workspace.surveys.find(after);
  const one = await rank(workspace, before, policy, options);
  const other = await rank(workspace, after, policy, options);
  return { before: one.survey, after: other.survey, comparison: compareSurveys(one, other) };
}
