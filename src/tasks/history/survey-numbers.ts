import { createHash } from 'node:crypto';
import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import { findingRows } from '../../core/rank/finding-rows.js';
import { SentVisits } from '../../core/rank/sent-visits.js';
import { surveyFigures } from '../../core/history/survey-figures.js';
import type { SurveyFigures } from '../../core/history/figures.js';
import type { SurveySummary } from '../../core/survey/survey.js';
import { partyOf } from '../../crawl/third-party.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';
import { siteFindings } from '../site-findings.js';

/** Grows with every change of what figures are. */
const figuresFormat = 1;

export interface NumbersOptions extends TaskOptions {
  readonly policy: Policy;
  readonly groups?: readonly NamedGroup[];
}

/** The figures of a survey: those that are kept, or new ones where the policy is another by now. */
export async function figuresOf(
  workspace: Workspace,
  { id, label, startedAt, thinnedAt }: SurveySummary,
  { policy, groups = [], ...task }: NumbersOptions,
): Promise<SurveyFigures> {
  const key = policyKey(policy, groups);
  const kept = workspace.figures.get({ id, label, startedAt });
  if (kept && (kept.policy === key || thinnedAt !== null)) return kept.figures;
  const result = await rank(workspace, label, policy, { ...task, groups, id });
  const site = siteFindings(workspace, result);
  const rows = findingRows(result.images, site);
  const figures = surveyFigures({
    sent: new SentVisits(result.ledger, workspace.pages.resources(id, workspace.texts)),
    pages: result.pages,
    findings: Object.fromEntries(rows.map((row) => [row.id, row.count])),
    partyOf,
  });
  workspace.figures.add(id, key, figures);
  return figures;
}

function policyKey(policy: Policy, groups: readonly NamedGroup[]): string {
  return createHash('sha256')
    .update(JSON.stringify([figuresFormat, policy, groups]))
    .digest('hex');
}
