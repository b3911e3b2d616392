import pLimit from 'p-limit';
import { gainProblem } from '../../core/refit/plan/refit-plan.js';
import type { RefitSource } from '../../core/refit/plan/refit-plan.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Encoded } from '../../core/survey/encoded.js';
import { picturesAtOnce } from '../../images/at-once.js';
import { encodeKey } from '../../images/encode-key.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/**
 * Sources that keep their pixels get the encode of all of them, where the survey has that of a smaller need: whether a
 * smaller file is possible, and in which format, is decided at the size in which it is made.
 */
export async function encodeInPlace<Source extends RefitSource>(
  workspace: Workspace,
  sources: readonly Source[],
  policy: Policy,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<Source[]> {
  const { bodies, encodes } = workspace;
  const isDue = ({ inPlace, reason, image: { contentHash, intrinsic }, encoded }: Source) =>
    inPlace &&
    reason === null &&
    encoded?.resultHash &&
    encoded.need &&
    encoded.need.width !== intrinsic?.width &&
    bodies.has(contentHash);
  const total = sources.filter(isDue).length;
  if (total === 0) return [...sources];
  // The encoders take a while to load.
  const { encodeAndKeep } = await import('../survey/encode-file.js');
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  return Promise.all(
    sources.map((source) =>
      limit(async () => {
        if (!isDue(source) || signal?.aborted) return source;
        const { image } = source;
        onProgress({ stage: 'images', done: done++, total, doing: image.mediaType });
        const kept = encodes.get(image.contentHash, image.intrinsic, encodeKey(policy));
        const isWhole = kept && (kept.resultHash === null || bodies.has(kept.resultHash));
        const encoded = isWhole
          ? kept
          : await encodeAndKeep(workspace, image, image.intrinsic, policy);
        const isGain = ({ steps }: Encoded) =>
          gainProblem(image.bytes - steps.best, image.bytes, policy.worthwhile) === null;
        // The elements that show it small, and do not choose it among others, are helped nevertheless.
        if (!isGain(encoded) && isGain(source.encoded!)) return { ...source, inPlace: false };
        return { ...source, encoded, need: source.encoded?.need };
      }),
    ),
  );
}
