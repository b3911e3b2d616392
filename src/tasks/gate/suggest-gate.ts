import type { Budget } from '../../core/budgets/budget.js';
import { suggestBudgets } from '../../core/budgets/suggest.js';
import { conditionsKey } from '../../core/load/marked-session.js';
import type { Workspace } from '../../store/workspace.js';
import { siteOf } from '../history/site-of.js';
import { siteSessions } from '../history/site-sessions.js';
import type { GateOptions } from './gate.js';
import { measureSurvey } from './measure-survey.js';

/**
 * Budgets that the newest survey of a site and its newest loads keep, without names: those follow from the rest.
 *
 * @throws NotFoundError when there is no survey.
 */
export async function suggestGate(
  workspace: Workspace,
  options: Omit<GateOptions, 'budgets'>,
): Promise<{ readonly budgets: readonly Omit<Budget, 'name'>[] }> {
  const site = siteOf(workspace, options.site);
  const survey = site.surveys.findLast(
    ({ label, thinnedAt }) => thinnedAt === null && (options.survey ?? label) === label,
  );
  const sessions = new Map(
    siteSessions(workspace, site)
      .filter(({ label }) => (options.session ?? label) === label)
      .map((session) => [conditionsKey(session), session]),
  );
  const measured = survey ? await measureSurvey(workspace, survey, options) : undefined;
  return {
    budgets: suggestBudgets(measured, [...sessions.values()]).map(
      ({ name: _, ...budget }) => budget,
    ),
  };
}
