import { narrowFacts } from '../core/rank/filter.js';
import type { VisitFilter } from '../core/rank/filter.js';
import { namedGroups } from '../core/survey/page-groups.js';
import type { NamedGroup } from '../core/survey/page-groups.js';
import { possiblePictures } from '../core/survey/pictures.js';
import { largestNeeds, needsOfPlacements } from '../core/waste/placement-needs.js';
import type { Policy } from '../core/policy/policy.js';
import { rankImages } from '../core/rank/ranking.js';
import type { RankOptions, Ranking } from '../core/rank/ranking.js';
import type { SurveyHead, SurveyedPage } from '../core/survey/survey.js';
import type { Encoded } from '../core/survey/encoded.js';
import type { Workspace } from '../store/workspace.js';
import type { TaskOptions } from './progress.js';
import { encodesDue, encodeSurvey } from './survey/encode-survey.js';
import type { DueEncode, EncodesDue } from './survey/encode-survey.js';
import { picturesOfSurvey } from './survey/survey-pictures.js';

export interface RankResult extends Ranking {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  /** The encodes that the ranking needs. */
  readonly encoded: readonly Encoded[];
}

export interface RankTaskOptions extends TaskOptions, Pick<RankOptions, 'unweighted'> {
  /** Reads only some of the visits. */
  readonly only?: VisitFilter;
  /** Number of the survey, where several have its label. */
  readonly id?: number;
  /** Page groups named by a person: what they are called now counts, not when the survey was made. */
  readonly groups?: readonly NamedGroup[] | undefined;
  /** What stands for encodes that are missing; without it they are made. */
  readonly estimateOf?: (due: DueEncode) => Encoded;
}

/**
 * Ranks a survey's image files by waste. Encodes that are missing (the survey was interrupted, or the
 * policy has changed) are made first.
 *
 * @param label the survey; the newest when it is left out
 * @throws NotFoundError when there is no such survey.
 */
export async function rank(
  workspace: Workspace,
  label: string | undefined,
  policy: Policy,
  options: RankTaskOptions = {},
): Promise<RankResult> {
  const { surveys } = workspace;
  const kept = workspace.pages.read(
    options.id === undefined ? surveys.find(label) : surveys.get(options.id),
  );
  const nameOf = namedGroups(options.groups ?? []);
  const pages = kept.pages.map((page) => ({ ...page, group: nameOf(page.url) ?? page.group }));
  const surveyed = { ...kept, pages };
  // What a file should be is decided by all of its slots, whichever of them are looked at.
  const needs = needsOfPlacements(surveyed, policy);
  const largest = largestNeeds(surveyed, needs);
  const encoded = options.estimateOf
    ? estimated(encodesDue(workspace, surveyed, policy, largest), options.estimateOf)
    : await encodeSurvey(workspace, surveyed, policy, largest, options);
  const possible = possiblePictures(surveyed);
  const pictures = await picturesOfSurvey(workspace, surveyed, possible, options);
  const whole = { ...surveyed, encoded, pictures };
  const facts = narrowFacts(whole, options.only ?? {});
  const { unweighted } = options;
  const ranking = rankImages(facts, policy, {
    unweighted,
    needs: facts === whole ? needs : undefined,
  });
  // A rule that matches nothing in a part of the survey may match elsewhere.
  const { unmatchedRules } = needs;
  return { survey: facts.head, pages: facts.pages, encoded, ...ranking, unmatchedRules };
}

function estimated({ known, due }: EncodesDue, estimateOf: (due: DueEncode) => Encoded) {
  return [...known, ...due.map(estimateOf)];
}
