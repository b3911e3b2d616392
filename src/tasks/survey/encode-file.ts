import { messageOf } from '../../core/base/errors.js';
import { failedEncode, noSteps } from '../../core/survey/failed-encode.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import type { Encoded } from '../../core/survey/encoded.js';
import { encodeKey } from '../../images/encode-key.js';
import { tidy } from '../../images/facts.js';
import { contentHashOf } from '../../images/hash.js';
import type { FirstEncode } from '../../images/first-encode.js';
import { compressedBytes, encodeNeeded } from '../../images/needed.js';
import type { Workspace } from '../../store/workspace.js';
import type { FirstEncodes } from './first-encodes.js';
import type { CrewWork } from './crew-work.js';
import { optimiseVector } from '../vector/optimise-vector.js';

export interface OneEncode {
  /** The bytes of the file; left out, those in the workspace. */
  readonly read?: (contentHash: string) => Promise<Buffer>;
  /** Drafts of it at its need that were made before. */
  readonly drafts?: FirstEncode['drafts'];
}

/** Encodes one file at its need, or makes a vector smaller, and keeps what came of it. */
export async function encodeAndKeep(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
  { read = (hash) => workspace.bodies.read(hash), drafts = [] }: OneEncode = {},
): Promise<Encoded> {
  let body: Buffer;
  try {
    body = await read(file.contentHash);
  } catch (error) {
    // That is no property of the file: it is tried again once its bytes are there.
    return failedEncode(file, need, messageOf(error));
  }
  const encoded = await encodeOne(workspace, { file, body, need, policy, drafts });
  workspace.encodes.add(encoded, encodeKey(policy));
  return encoded;
}

/** What makes the encodes of a survey faster. */
export interface EncodeHelp {
  /** Who encodes besides. */
  readonly crew?: CrewWork | undefined;
  /** What was encoded once before. */
  readonly firsts?: FirstEncodes | undefined;
}

/** The same by a worker of a crew that is free, or else here. */
export async function encodeByAny(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
  { crew, firsts }: EncodeHelp = {},
): Promise<Encoded> {
  if (!crew?.hasRoomForEncode) {
    const encoded = await encodeAndKeep(workspace, file, need, policy, {
      drafts: firsts?.draftsOf(file, need) ?? [],
    });
    firsts?.delete(file.contentHash);
    return encoded;
  }
  await crew.encode(file.contentHash, need);
  const made = workspace.encodes.get(file.contentHash, need, encodeKey(policy));
  return made ?? failedEncode(file, need, 'the survey was stopped before it was encoded');
}

interface WholeEncode {
  readonly file: ImageFile;
  readonly body: Buffer;
  readonly need: Size | null;
  readonly policy: Policy;
  readonly drafts: FirstEncode['drafts'];
}

async function encodeOne(
  workspace: Workspace,
  { file, body, need, policy, drafts }: WholeEncode,
): Promise<Encoded> {
  const { contentHash } = file;
  try {
    if (!need) return { ...failedEncode(file, need, ''), ...(await vector(workspace, body)) };
    const { body: result, ...made } = await encodeNeeded(body, file, need, policy, drafts);
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
