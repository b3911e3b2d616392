import { narrowFacts } from '../../core/rank/filter.js';
import { rankImages } from '../../core/rank/ranking.js';
import { singlePictures } from '../../core/survey/pictures.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Conditions } from '../../core/visitors/conditions.js';
import { largestNeeds, needsOfPlacements } from '../../core/waste/placement-needs.js';
import type { Workspace } from '../../store/workspace.js';
import { encodeSurvey } from '../survey/encode-survey.js';

/** What images would weigh at the need of a view, in bytes by address. */
export type NeedsInView = (view: Conditions['view'] | null) => ReadonlyMap<string, number>;

const nothing: ReadonlyMap<string, number> = new Map();

/**
 * What images would weigh at their need, as far as the newest survey and the encodes that were made for it know: in views
 * of the same width and density as the one that is asked for, in all views where none is. Nothing is encoded for it.
 */
export async function knownNeeds(workspace: Workspace, policy: Policy): Promise<NeedsInView> {
  if (workspace.surveys.labels().length === 0) return () => nothing;
  const surveyed = workspace.pages.read(workspace.surveys.find());
  const signal = AbortSignal.abort();
  const needs = needsOfPlacements(surveyed, policy);
  const encoded = await encodeSurvey(workspace, surveyed, policy, largestNeeds(surveyed, needs), {
    signal,
  });
  const facts = { ...surveyed, encoded, pictures: singlePictures(surveyed) };
  return (view) => {
    const alike = surveyed.head.views.filter(
      ({ width, density }) => !view || (width === view.width && density === view.density),
    );
    if (alike.length === 0) return nothing;
    const narrowed = narrowFacts(facts, { views: alike.map(({ name }) => name) });
    const known = rankImages(narrowed, policy).images.filter(
      ({ encoded: made }) => made && made.problem === null,
    );
    return new Map(
      known.flatMap(({ urls, waste }) =>
        waste && waste.neededBytes > 0 ? urls.map((url) => [url, waste.neededBytes] as const) : [],
      ),
    );
  };
}
