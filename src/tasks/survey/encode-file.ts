import { messageOf } from '../../core/base/errors.js';
import { failedEncode, noSteps } from '../../core/survey/failed-encode.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import type { Encoded } from '../../core/survey/encoded.js';
import { encodeKey } from '../../images/encode-key.js';
import { tidy } from '../../images/facts.js';
import { contentHashOf } from '../../images/hash.js';
import { compressedBytes, encodeNeeded } from '../../images/needed.js';
import type { Workspace } from '../../store/workspace.js';
import type { CrewWork } from './survey-options.js';
import { optimiseVector } from '../vector/optimise-vector.js';

/**
 * Encodes one file at its need, or makes a vector smaller, and keeps what came of it.
 *
 * @param read the bytes of the file; left out, those in the workspace
 */
export async function encodeAndKeep(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
  read: (contentHash: string) => Promise<Buffer> = (hash) => workspace.bodies.read(hash),
): Promise<Encoded> {
  let body: Buffer;
  try {
    body = await read(file.contentHash);
  } catch (error) {
    // That is no property of the file: it is tried again once its bytes are there.
    return failedEncode(file, need, messageOf(error));
  }
  const encoded = await encodeOne(workspace, file, body, need, policy);
  workspace.encodes.add(encoded, encodeKey(policy));
  return encoded;
}

/**
 * The same by a worker of a crew that is free, or else here.
 */
export async function encodeByAny(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
  crew: CrewWork | undefined,
): Promise<Encoded> {
  if (!crew?.hasRoomForEncode) return encodeAndKeep(workspace, file, need, policy);
  await crew.encode(file.contentHash, need);
  const made = workspace.encodes.get(file.contentHash, need, encodeKey(policy));
  return made ?? failedEncode(file, need, 'the survey was stopped before it was encoded');
}

async function encodeOne(
  workspace: Workspace,
  file: ImageFile,
  body: Buffer,
  need: Size | null,
  policy: Policy,
): Promise<Encoded> {
  const { contentHash } = file;
  try {
    if (!need) return { ...failedEncode(file, need, ''), ...(await vector(workspace, body)) };
    const { body: result, ...made } = await encodeNeeded(body, file, need, policy);
    const resultHash = contentHashOf(result);
    await workspace.bodies.keep(resultHash, result);
    return { contentHash, need, ...made, resultHash, problem: null };
  } catch (error) {
    return failedEncode(file, need, `it cannot be decoded completely (${tidy(messageOf(error))})`);
  }
}

/** A vector without its invisible parts, and its compressed size. */
async function vector(
  workspace: Workspace,
  body: Buffer,
): Promise<Omit<Encoded, 'contentHash' | 'need' | 'attempts'>> {
  const optimised = await optimiseVector(body);
  const resultHash = optimised && contentHashOf(optimised);
  if (optimised && resultHash) await workspace.bodies.keep(resultHash, optimised);
  const result = optimised ?? body;
  const steps = {
    ...noSteps,
    metadata: body.length - result.length,
    sameFormat: await compressedBytes(body),
    best: await compressedBytes(result),
  };
  return { nature: 'vector', format: 'svg', steps, resultHash, problem: null };
}
