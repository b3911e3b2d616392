import { needsOfPlacements } from '../../core/waste/placement-needs.js';
import type { Policy } from '../../core/policy/policy.js';
import { rankImages } from '../../core/rank/ranking.js';
import { singlePictures } from '../../core/survey/pictures.js';
import type { Workspace } from '../../store/workspace.js';
import { encodeSurvey } from '../survey/encode-survey.js';

/**
 * What pictures would weigh at their need, in bytes by address, as far as the newest survey and the encodes that were
 * made for it know. Nothing is encoded for it.
 */
export async function knownNeeds(
  workspace: Workspace,
  policy: Policy,
): Promise<ReadonlyMap<string, number>> {
  if (workspace.surveys.labels().length === 0) return new Map();
  const surveyed = workspace.pages.read(workspace.surveys.find());
  const needs = needsOfPlacements(surveyed, policy);
  const signal = AbortSignal.abort();
  const encoded = await encodeSurvey(workspace, surveyed, policy, needs, { signal });
  const { images } = rankImages(
    { ...surveyed, encoded, pictures: singlePictures(surveyed) },
    policy,
    { needs },
  );
  return new Map(
    images.flatMap(({ urls, waste }) =>
      waste ? urls.map((url) => [url, waste.neededBytes] as const) : [],
    ),
  );
}
