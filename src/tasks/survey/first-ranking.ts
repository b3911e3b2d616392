import pLimit from 'p-limit';
import { failedEncode } from '../../core/survey/failed-encode.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { SurveyFacts } from '../../core/survey/survey.js';
import { picturesAtOnce } from '../../images/at-once.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import { rank } from '../rank.js';
import type { RankResult } from '../rank.js';
import { encodesDue } from './encode-survey.js';
import type { DueEncode, EncodeOptions } from './encode-survey.js';
import type { FirstEncodes } from './first-encodes.js';

/** What a survey wastes, as one encode of each image tells. */
export interface FirstRanking {
  readonly result: RankResult;
  /** How many images were encoded only once. */
  readonly estimated: number;
}

export interface FirstRankingOptions extends Omit<EncodeOptions, 'firsts' | 'crew'> {
  readonly firsts: FirstEncodes;
  readonly groups?: readonly NamedGroup[] | undefined;
}

/**
 * Encodes each image of a survey once that was not yet, and ranks them by what that tells. What is not told by one encode of a
 * still picture is in it as not judged.
 *
 * @returns `undefined` when there is nothing to estimate, or when it was stopped
 */
export async function rankFirst(
  workspace: Workspace,
  facts: Pick<SurveyFacts, 'head' | 'files'>,
  policy: Policy,
  largest: ReadonlyMap<string, Size>,
  { firsts, ...options }: FirstRankingOptions,
): Promise<FirstRanking | undefined> {
  const { signal, onProgress = noProgress, onEncoded = () => {}, underWay, groups } = options;
  const { due } = encodesDue(workspace, facts, policy, largest);
  const missing = due.filter(({ file, need }) => !need || !firsts.has(file, need));
  const { encodeByAny } = await import('./encode-file.js');
  const limit = pLimit(picturesAtOnce);
  let done = due.length - missing.length;
  const encode = async ({ file, need }: DueEncode) => {
    if (signal?.aborted) return;
    const made = underWay?.get(file.contentHash);
    await made;
    if (need) await firsts.make(file, need);
    // A vector has no pixels to search for: it is soon as small as it can be.
    else if (!made) await encodeByAny(workspace, file, need, policy);
    const estimate = need && firsts.estimateOf(file, need);
    if (estimate) onEncoded(estimate, file.bytes, true);
    onProgress({ stage: 'first', done: ++done, total: due.length, doing: file.mediaType });
  };
  await Promise.all(missing.map((one) => limit(() => encode(one))));
  if (signal?.aborted) return undefined;
  let estimated = 0;
  const estimateOf = ({ file, need }: DueEncode) => {
    const estimate = need ? firsts.estimateOf(file, need) : undefined;
    if (estimate) estimated++;
    return estimate ?? failedEncode(file, need, 'it is not encoded yet');
  };
  const { id } = facts.head;
  const result = await rank(workspace, undefined, policy, { signal, groups, id, estimateOf });
  return estimated > 0 ? { result, estimated } : undefined;
}
