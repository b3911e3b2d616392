import { availableParallelism } from 'node:os';
import pLimit from 'p-limit';
import { Allowances } from '../core/allowance.js';
import { messageOf } from '../core/errors.js';
import { isVector } from '../core/image-file.js';
import type { ImageFile } from '../core/image-file.js';
import type { Placement } from '../core/placement.js';
import type { Policy } from '../core/policy.js';
import { largestNeeds } from '../core/ranking.js';
import type { Size } from '../core/size.js';
import type { Encoded, SurveyHead, SurveyedPage } from '../core/survey.js';
import type { EncodedSteps } from '../core/waste.js';
import { encoderVersion } from '../images/encode.js';
import { tidy } from '../images/facts.js';
import { contentHashOf } from '../images/hash.js';
import { compressedBytes, encodeNeeded } from '../images/needed.js';
import type { Workspace } from '../store/workspace.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';

/** What has to be known of a survey to encode its images. */
export interface Weighable {
  readonly head: SurveyHead;
  readonly pages: readonly Pick<SurveyedPage, 'url' | 'group'>[];
  readonly files: readonly ImageFile[];
  readonly placements: Iterable<Placement>;
}

/**
 * Encodes every image file of a survey at its need, the largest over all its placements, and compresses its
 * vectors. What the workspace holds already is not encoded again. A file that cannot be encoded is told, not thrown.
 *
 * @returns one result for each file that is shown; fewer when it was stopped
 */
export async function weigh(
  workspace: Workspace,
  { head, pages, files, placements }: Weighable,
  policy: Policy,
  { signal, onProgress = noProgress }: TaskOptions = {},
): Promise<Encoded[]> {
  const key = policyKey(policy);
  const groups = new Map(pages.map(({ url, group }) => [url, group]));
  const allowances = new Allowances(policy.rules, groups);
  const needs = largestNeeds(placements, files, head.views, policy, allowances);
  const known: Encoded[] = [];
  const due: { file: ImageFile; need: Size | null }[] = [];
  for (const file of files) {
    const need = needs.get(file.contentHash) ?? null;
    if (file.problem !== null || (!need && !isVector(file))) continue;
    const encoded = knownEncode(workspace, file, need, key);
    if (encoded) known.push(encoded);
    else if (!workspace.bodies.has(file.contentHash))
      known.push(failed(file, need, 'its body was not kept: survey again with bodies'));
    else due.push({ file, need });
  }
  const limit = pLimit(availableParallelism());
  let done = 0;
  const results = await Promise.all(
    due.map(({ file, need }) =>
      limit(async () => {
        if (signal?.aborted) return [];
        onProgress({ stage: 'images', done, total: due.length, doing: file.mediaType });
        const encoded = await encodeAndKeep(workspace, file, need, policy);
        onProgress({ stage: 'images', done: ++done, total: due.length, doing: file.mediaType });
        return encoded;
      }),
    ),
  );
  return [...known, ...results.flat()];
}

/** An encode that the workspace holds, with its result, or `undefined`. */
export function knownEncode(
  workspace: Workspace,
  { contentHash }: ImageFile,
  need: Size | null,
  key: string,
): Encoded | undefined {
  const encoded = workspace.encodes.get(contentHash, need, key);
  if (!encoded?.resultHash) return encoded;
  return workspace.bodies.has(encoded.resultHash) ? encoded : undefined;
}

/** Encodes one file at its need, or compresses a vector, and keeps what came of it. */
export async function encodeAndKeep(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
): Promise<Encoded> {
  const encoded = await encodeOne(workspace, file, need, policy);
  workspace.encodes.add(encoded, policyKey(policy));
  return encoded;
}

async function encodeOne(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
): Promise<Encoded> {
  const { contentHash } = file;
  try {
    const body = await workspace.bodies.read(contentHash);
    if (!need) return { ...failed(file, need, ''), ...(await compressed(body)), problem: null };
    const { body: result, ...made } = await encodeNeeded(body, file, need, policy);
    const resultHash = contentHashOf(result);
    await workspace.bodies.keep(resultHash, result);
    return { contentHash, need, ...made, resultHash, problem: null };
  } catch (error) {
    return failed(file, need, `it cannot be decoded to the end (${tidy(messageOf(error))})`);
  }
}

async function compressed(body: Buffer): Promise<Pick<Encoded, 'nature' | 'format' | 'steps'>> {
  const best = await compressedBytes(body);
  return { nature: 'vector', format: 'svg', steps: { ...noSteps, sameFormat: best, best } };
}

const noSteps: EncodedSteps = { metadata: 0, exponent: 1, sameFormat: 0, best: 0 };

/** What stands in for an encode where there is none. */
function failed({ contentHash }: ImageFile, need: Size | null, problem: string): Encoded {
  const nature = 'photograph';
  const common = { contentHash, need, trials: [], resultHash: null, problem };
  return { ...common, nature, format: 'png', steps: noSteps };
}

/** What an encode depends on besides the picture and its size. */
export function policyKey({ formats, similarity, quality }: Policy): string {
  const { least, most } = quality;
  return JSON.stringify([encoderVersion, [...formats].sort(), similarity, least, most]);
}
