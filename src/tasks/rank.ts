import type { Policy } from '../core/policy.js';
import { rankImages } from '../core/ranking.js';
import type { Ranking } from '../core/ranking.js';
import type { Encoded, SurveyHead, SurveyedPage } from '../core/survey.js';
import type { Workspace } from '../store/workspace.js';
import type { TaskOptions } from './progress.js';
import { weigh } from './weigh.js';

export interface RankResult extends Ranking {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  /** The encodes behind the ranking. */
  readonly encoded: readonly Encoded[];
}

/**
 * Ranks a survey's image files by waste. Encodes that are missing (the survey was broken off, or the
 * policy has changed) are made first.
 *
 * @param label the survey; the newest when it is left out
 * @throws NotFoundError when there is no such survey.
 */
export async function rank(
  workspace: Workspace,
  label: string | undefined,
  policy: Policy,
  options: TaskOptions = {},
): Promise<RankResult> {
  const facts = workspace.pages.read(workspace.surveys.find(label));
  const encoded = await weigh(workspace, facts, policy, options);
  const ranking = rankImages({ ...facts, encoded }, policy);
  return { survey: facts.head, pages: facts.pages, encoded, ...ranking };
}
