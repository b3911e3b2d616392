import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { needsOfFiles } from '../../core/waste/placement-needs.js';
import type { Workspace } from '../../store/workspace.js';
import { encodeSurvey } from '../survey/encode-survey.js';
import type { EncodeOptions } from '../survey/encode-survey.js';
import { rankFirst } from '../survey/first-ranking.js';
import type { FirstRanking } from '../survey/first-ranking.js';
import { picturesOfSurvey } from '../survey/survey-pictures.js';
import { lookThrough } from './first-look.js';
import type { JudgedSurvey } from './sum-survey.js';
import { SurveyParts } from './survey-parts.js';

export interface JudgeOptions extends EncodeOptions {
  readonly groups?: readonly NamedGroup[] | undefined;
  /** Told what is wasted as soon as every image was encoded once, if that is not all. */
  readonly onFirstRanking?: ((ranking: FirstRanking) => void | Promise<void>) | undefined;
}

/** Encodes what is missing of a sealed survey, and finds out which of its files are one picture. */
export async function judgeSurvey(
  workspace: Workspace,
  head: SurveyHead,
  policy: Policy,
  options: JudgeOptions,
): Promise<JudgedSurvey> {
  const parts = new SurveyParts(workspace, head, options.groups);
  const look = lookThrough(parts, policy);
  const largest = needsOfFiles(parts.files, look.factors);
  const { firsts, onFirstRanking } = options;
  // What is added up in parts takes longer to rank than a first answer may.
  if (firsts && onFirstRanking && parts.count === 1) {
    const ranking = await rankFirst(workspace, parts, policy, largest, { ...options, firsts });
    if (ranking) await onFirstRanking(ranking);
  }
  const encoded = await encodeSurvey(workspace, parts, policy, largest, options);
  const pictures = await picturesOfSurvey(workspace, parts, look.possible, options);
  return { parts, look, encoded, pictures };
}
