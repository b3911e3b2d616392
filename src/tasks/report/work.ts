import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NotFoundError, UsageError, messageOf } from '../../core/base/errors.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import type { Policy } from '../../core/policy/policy.js';
import { planSystemWidths } from '../../core/refit/plan/system-widths.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import type { ReportWork } from '../../output/views/report.js';
import type { RankResult } from '../rank.js';
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
  const worklist = await paper(refit, refitPapers.worklistJson, 'zealous-lynx.worklist/1');
  const snippets = await paper(refit, refitPapers.snippetsJson, 'zealous-lynx.snippets/1');
  return { items: (worklist as { items: WorkItem[] }).items, snippets };
}

async function paper(folder: string, name: string, format: string): Promise<object> {
  const file = join(folder, name);
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    throw new NotFoundError(`${folder} is not the folder of a refit: ${messageOf(error)}`, {
      hint: 'give --refit the folder that refit wrote with --out, or run refit again',
    });
  }
  const parsed = parse(text);
  if (parsed?.['format'] !== format)
    throw new UsageError(`${file} is not what a refit of this version writes`, {
      hint: 'run refit again',
    });
  return parsed;
}

function parse(text: string): Record<string, unknown> | null {
  try {
    return JSON.parse(text) as Record<string, unknown> | null;
  } catch {
    return null;
  }
}
