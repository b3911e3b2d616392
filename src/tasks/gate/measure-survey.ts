import { MeasuredSurvey } from '../../core/budgets/measured-survey.js';
import type { MeasuredFinding } from '../../core/budgets/measured-survey.js';
import { RankedImage } from '../../core/rank/ranked-image.js';
import { SentVisits } from '../../core/rank/sent-visits.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';
import type { NumbersOptions } from '../history/survey-numbers.js';
import { rank } from '../rank.js';
import type { RankResult } from '../rank.js';
import { siteFindings } from '../site-findings.js';

/** A survey as budgets see it. */
export async function measureSurvey(
  workspace: Workspace,
  { id, label }: Pick<SurveyHead, 'id' | 'label'>,
  { policy, groups = [], ...task }: NumbersOptions,
): Promise<MeasuredSurvey> {
  const result = await rank(workspace, label, policy, { ...task, groups, id });
  const { ledger } = result;
  const sent = new SentVisits(ledger, workspace.pages.resources(id, workspace.texts));
  const urls = ledger.facts.files.map((_, at) => new RankedImage(ledger, at).url);
  return new MeasuredSurvey(sent, result.pages, urls, () => findingsOf(workspace, result));
}

function findingsOf(workspace: Workspace, result: RankResult): MeasuredFinding[] {
  const ofImages = result.images.flatMap((image) => {
    const pages = [...new Set(image.placed.map(({ page }) => page))];
    return image.findings.map(({ id }) => ({ id, url: image.url, pages }));
  });
  const ofSite = siteFindings(workspace, result).map(({ id, url, pages }) => ({ id, url, pages }));
  return [...ofImages, ...ofSite];
}
