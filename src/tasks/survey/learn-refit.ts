import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NotFoundError } from '../../core/base/errors.js';
import { noSteps } from '../../core/survey/failed-encode.js';
import type { Encoded } from '../../core/survey/encoded.js';
import type { EncodedFormat, Policy } from '../../core/policy/policy.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { usualExponent } from '../../core/survey/encoded.js';
import type { RefitFile } from '../../core/refit/refit-job.js';
import type { RefitManifest } from '../../core/refit/refit-manifest.js';
import { encodeKey } from '../../images/encode-key.js';
import { contentHashOf } from '../../images/hash.js';
import type { Workspace } from '../../store/workspace.js';

const formats: Readonly<Record<string, EncodedFormat>> = {
  'image/jpeg': 'jpeg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
  'image/gif': 'gif',
};

/**
 * Learns the files of a refit that was made in another workspace, so that a survey of the site on which it is live judges
 * them as its own: against the pictures that they were made from.
 *
 * @param folder the refit, with its manifest; a file that was changed since is left out
 * @returns the number of files learnt; `null` when the refit was made by another policy or version, whose files say nothing
 *   about what this one would make
 * @throws NotFoundError when the folder is no refit.
 */
export async function learnRefit(
  workspace: Pick<Workspace, 'bodies' | 'encodes' | 'images'>,
  folder: string,
  policy: Policy,
): Promise<number | null> {
  const { encodedBy, files, variants } = await readManifest(folder);
  const key = encodeKey(policy);
  if (encodedBy !== key) return null;
  const still = files.filter(({ from }) => from.mediaType !== animated);
  for (const { contentHash, from } of still) addOriginal(workspace, contentHash, from);
  const originals = new Set(still.map(({ contentHash }) => contentHash));
  const made = [
    ...files.map(({ to, mediaType, ...file }) => ({ ...file, ...to, mediaType })),
    // What is made for old browsers is seen by none of ours, and may be less like the picture.
    ...variants.filter(({ use }) => use === 'width'),
  ];
  let learnt = 0;
  for (const { path, contentHash, resultHash, mediaType, width, height, bytes } of made) {
    const format = formats[mediaType];
    const body = await readFile(join(folder, path)).catch(() => undefined);
    if (!originals.has(contentHash) || !format || width === null || height === null) continue;
    if (!body || contentHashOf(body) !== resultHash) continue;
    await workspace.bodies.keep(resultHash, body);
    const encoded: Encoded = {
      ...{ contentHash, need: { width, height }, nature: 'photograph', format, attempts: [] },
      steps: { ...noSteps, exponent: usualExponent, sameFormat: bytes, best: bytes },
      ...{ resultHash, problem: null },
    };
    workspace.encodes.add(encoded, `${format} from elsewhere, ${key}`);
    learnt++;
  }
  return learnt;
}

/** A manifest does not say how many frames a file has: of what may be an animation nothing is learnt. */
const animated = 'image/gif';

/** An encode is kept with what it was made from, of which a manifest has all that is known of a file. */
function addOriginal(
  { images }: Pick<Workspace, 'images'>,
  contentHash: string,
  { width, height, ...from }: RefitFile['from'],
): void {
  const intrinsic = width === null || height === null ? null : { width, height };
  if (!images.has(contentHash))
    images.add({ contentHash, ...from, intrinsic, frames: 1, problem: null });
}

async function readManifest(folder: string): Promise<RefitManifest> {
  const path = join(folder, refitPapers.manifest);
  try {
    const found = JSON.parse(await readFile(path, 'utf8')) as RefitManifest;
    if (found.format === 'zealous-lynx.refit/1' && Array.isArray(found.files)) return found;
  } catch {
    // Told below, whatever it is.
  }
  throw new NotFoundError(`${path} is no manifest of a refit`, {
    hint: 'name the folder that refit --out has written',
  });
}
