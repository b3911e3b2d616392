import { availableParallelism } from 'node:os';
import pLimit from 'p-limit';
import { messageOf } from '../core/errors.js';
import type { ImageFile } from '../core/image-file.js';
import type { Placement } from '../core/placement.js';
import type { Policy } from '../core/policy.js';
import { largestNeeds } from '../core/ranking.js';
import type { Size } from '../core/size.js';
import type { Encoded, SurveyHead } from '../core/survey.js';
import { encoderVersion } from '../images/encode.js';
import { tidy } from '../images/facts.js';
import { contentHashOf } from '../images/hash.js';
import { encodeNeeded } from '../images/needed.js';
import type { Workspace } from '../store/workspace.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';

/** What has to be known of a survey to encode its images. */
export interface Weighable {
  readonly head: SurveyHead;
  readonly files: readonly ImageFile[];
  readonly placements: Iterable<Placement>;
}

/**
 * Encodes every image file of a survey at its need, the largest over all its placements. What the
 * workspace holds already is not encoded again. A file that cannot be encoded is told, not thrown.
 *
 * @returns one result for each file that has pixels and is shown; fewer when it was stopped
 */
export async function weigh(
  workspace: Workspace,
  { head, files, placements }: Weighable,
  policy: Policy,
  { signal, onProgress = noProgress }: TaskOptions = {},
): Promise<Encoded[]> {
  const key = policyKey(policy);
  const needs = largestNeeds(placements, files, head.views, policy);
  const known: Encoded[] = [];
  const due: { file: ImageFile; need: Size }[] = [];
  for (const file of files) {
    const need = needs.get(file.contentHash);
    if (!need || file.problem !== null) continue;
    const encoded = workspace.encodes.get(file.contentHash, need, key);
    const usable = encoded && (!encoded.resultHash || workspace.bodies.has(encoded.resultHash));
    if (usable) known.push(encoded);
    else if (!workspace.bodies.has(file.contentHash)) known.push(withoutBody(file, need));
    else due.push({ file, need });
  }
  const limit = pLimit(availableParallelism());
  let done = 0;
  const results = await Promise.all(
    due.map(({ file, need }) =>
      limit(async () => {
        if (signal?.aborted) return [];
        onProgress({ stage: 'images', done, total: due.length, doing: file.mediaType });
        const encoded = await encodeOne(workspace, file, need, policy);
        workspace.encodes.add(encoded, key);
        onProgress({ stage: 'images', done: ++done, total: due.length, doing: file.mediaType });
        return encoded;
      }),
    ),
  );
  return [...known, ...results.flat()];
}

/** What stands in for an encode where there is nothing to be encoded. */
function withoutBody({ contentHash }: ImageFile, need: Size): Encoded {
  const steps = { pixelRatio: 1, sameFormat: 0, best: 0 };
  const problem = 'its body was not kept: survey again with bodies';
  return { contentHash, need, format: 'png', steps, resultHash: null, problem };
}

async function encodeOne(
  workspace: Workspace,
  file: ImageFile,
  need: Size,
  policy: Policy,
): Promise<Encoded> {
  const common = { contentHash: file.contentHash, need };
  try {
    const body = await workspace.bodies.read(file.contentHash);
    const { format, steps, body: result } = await encodeNeeded(body, file, need, policy);
    const resultHash = contentHashOf(result);
    await workspace.bodies.keep(resultHash, result);
    return { ...common, format, steps, resultHash, problem: null };
  } catch (error) {
    const steps = { pixelRatio: 1, sameFormat: 0, best: 0 };
    const problem = `it cannot be decoded to the end (${tidy(messageOf(error))})`;
    return { ...common, format: 'png', steps, resultHash: null, problem };
  }
}

/** What an encode depends on besides the picture and its size. */
function policyKey({ formats, quality }: Policy): string {
  return JSON.stringify([encoderVersion, [...formats].sort(), quality]);
}
