import type { SiteFinding } from '../../core/findings/site/index.js';
import type { Policy } from '../../core/policy/policy.js';
import { planSystemWidths } from '../../core/refit/plan/system-widths.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import type { ReportWork } from '../../output/views/report.js';
import type { RankResult } from '../rank.js';
import { refitPaper } from '../refit/refit-paper.js';
import { surveyWorklist } from '../refit/survey-worklist.js';

/**
 * What is to be done: the work list and the markup of a refit, or without one what the survey alone tells.
 *
 * @throws NotFoundError, UsageError when the folder is not that of a refit.
 */
export async function reportWork(
  ranking: RankResult,
  site: readonly SiteFinding[],
  policy: Policy,
  refit: string | undefined,
): Promise<ReportWork> {
  if (refit === undefined) {
    const widths = planSystemWidths([], () => null, policy);
    const none = { choices: [], jobs: [], snippets: [], candidates: [], widths };
    return { items: surveyWorklist({ ranking, site, policy, ...none }), snippets: null };
  }
  const worklist = await refitPaper(refit, refitPapers.worklistJson, 'zealous-lynx.worklist/1');
  const snippets = await refitPaper(refit, refitPapers.snippetsJson, 'zealous-lynx.snippets/1');
  return { items: (worklist as unknown as { items: WorkItem[] }).items, snippets };
}
