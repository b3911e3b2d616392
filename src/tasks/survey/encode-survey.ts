import pLimit from 'p-limit';
import { failedEncode } from '../../core/survey/failed-encode.js';
import { isVector } from '../../core/survey/image-file.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import type { SurveyFacts } from '../../core/survey/survey.js';
import type { Encoded } from '../../core/survey/encoded.js';
import { picturesAtOnce } from '../../images/at-once.js';
import { encodeKey } from '../../images/encode-key.js';
import type { FindEncode } from '../../store/encodes.js';
import type { Workspace } from '../../store/workspace.js';
import { refitResult } from './refit-result.js';
import type { EncodeHelp } from './encode-file.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

export interface EncodeOptions extends TaskOptions, EncodeHelp {
  /** Encodes that others are making, by content hash: they are waited for and not made twice. */
  readonly underWay?: ReadonlyMap<string, Promise<void>> | undefined;
  /** Called with each encode as it is made, the bytes of the file as it is, and whether it is estimated. */
  readonly onEncoded?: (encoded: Encoded, bytes: number, isEstimate?: boolean) => void;
}

/**
 * Encodes every image file of a survey at its need, and compresses its
 * vectors. What the workspace holds already is not encoded again. A file that cannot be encoded is told, not thrown.
 *
 * @param largest the need of each file, the largest over all its placements, by content hash
 * @returns one result for each file that is shown; fewer when it was stopped
 */
export async function encodeSurvey(
  workspace: Workspace,
  facts: Pick<SurveyFacts, 'head' | 'files'>,
  policy: Policy,
  largest: ReadonlyMap<string, Size>,
  {
    signal,
    onProgress = noProgress,
    underWay,
    onEncoded = () => {},
    crew,
    firsts,
  }: EncodeOptions = {},
): Promise<readonly Encoded[]> {
  const { known, due } = encodesDue(workspace, facts, policy, largest);
  if (due.length === 0) return known;
  // The encoders take a while to load.
  const { encodeByAny } = await import('./encode-file.js');
  const limit = pLimit(picturesAtOnce + (crew?.capacity ?? 0));
  let done = 0;
  const results = await Promise.all(
    due.map(({ file, need }) =>
      limit(async () => {
        if (signal?.aborted) return [];
        onProgress({ stage: 'images', done, total: due.length, doing: file.mediaType });
        await underWay?.get(file.contentHash);
        const made = workspace.encodes.get(file.contentHash, need, encodeKey(policy));
        const encoded =
          made && isWhole(workspace, made)
            ? made
            : await encodeByAny(workspace, file, need, policy, { crew, firsts });
        onEncoded(encoded, file.bytes);
        onProgress({ stage: 'images', done: ++done, total: due.length, doing: file.mediaType });
        return encoded;
      }),
    ),
  );
  return [...known, ...results.flat()];
}

/** An image file that is still to be encoded at its need. */
export interface DueEncode {
  readonly file: ImageFile;
  readonly need: Size | null;
}

/** The encodes of a survey. */
export interface EncodesDue {
  readonly known: readonly Encoded[];
  readonly due: readonly DueEncode[];
}

/** What the workspace holds already of the encodes of a survey, and what is missing. */
export function encodesDue(
  workspace: Workspace,
  { head, files }: Pick<SurveyFacts, 'head' | 'files'>,
  policy: Policy,
  largest: ReadonlyMap<string, Size>,
): EncodesDue {
  const kept = workspace.encodes.ofSurvey(head.id, encodeKey(policy));
  const known: Encoded[] = [];
  const due: DueEncode[] = [];
  for (const file of files) {
    const need = largest.get(file.contentHash) ?? null;
    if (!isJudged(file, need)) continue;
    const encoded = keptEncode(workspace, file, need, policy, kept);
    if (encoded) known.push(encoded);
    else due.push({ file, need });
  }
  // What may waste the most comes first, and no large one is left alone at the end.
  due.sort((one, other) => other.file.bytes - one.file.bytes);
  return { known, due };
}

/** Whether an encode tells anything of a file: it can be read, and is shown or has no pixels. */
export function isJudged(file: ImageFile, need: Size | null): boolean {
  return file.problem === null && (need !== null || isVector(file));
}

/**
 * The encode of a file that is there already, or why none can be made.
 *
 * @param kept finds what was kept under the policy
 */
export function keptEncode(
  workspace: Workspace,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
  kept: FindEncode,
): Encoded | undefined {
  const encoded = kept(file.contentHash, need) ?? refitResult(workspace, file, need, policy);
  if (encoded && isWhole(workspace, encoded)) return encoded;
  if (workspace.bodies.has(file.contentHash)) return undefined;
  return failedEncode(file, need, 'its body was not kept: survey again without --no-bodies');
}

/** Whether the file of an encode still exists. */
function isWhole({ bodies }: Workspace, { resultHash }: Encoded): boolean {
  return resultHash === null || bodies.has(resultHash);
}
