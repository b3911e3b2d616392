import { messageOf } from '../core/errors.js';
import { failedEncode, noSteps } from '../core/failed-encode.js';
import type { ImageFile } from '../core/image-file.js';
import type { Policy } from '../core/policy.js';
import type { Size } from '../core/size.js';
import type { Encoded } from '../core/survey.js';
import { encodeKey } from '../images/encode-key.js';
import { tidy } from '../images/facts.js';
import { contentHashOf } from '../images/hash.js';
import { compressedBytes, encodeNeeded } from '../images/needed.js';
import type { Workspace } from '../store/workspace.js';

/** Encodes one file at its need, or compresses a vector, and keeps what came of it. */
export async function encodeAndKeep(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
): Promise<Encoded> {
  const encoded = await encodeOne(workspace, file, need, policy);
  workspace.encodes.add(encoded, encodeKey(policy));
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
    if (!need)
      return { ...failedEncode(file, need, ''), ...(await compressed(body)), problem: null };
    const { body: result, ...made } = await encodeNeeded(body, file, need, policy);
    const resultHash = contentHashOf(result);
    await workspace.bodies.keep(resultHash, result);
    return { contentHash, need, ...made, resultHash, problem: null };
  } catch (error) {
    return failedEncode(file, need, `it cannot be decoded to the end (${tidy(messageOf(error))})`);
  }
}

async function compressed(body: Buffer): Promise<Pick<Encoded, 'nature' | 'format' | 'steps'>> {
  const best = await compressedBytes(body);
  return { nature: 'vector', format: 'svg', steps: { ...noSteps, sameFormat: best, best } };
}
