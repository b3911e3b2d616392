import { pixelsAt } from '../policy/need.js';
import type { EncodedFormat } from '../policy/policy.js';
import { isVector } from '../survey/image-file.js';
import type { ImageFile } from '../survey/image-file.js';
import type { Encoded, EncodeAttempt } from '../survey/encoded.js';
import type { Credit } from './credit.js';
import { fallbackFor } from './refit-job.js';
import type { KeptFile, RefitFile, RefitJob, VariantJob } from './refit-job.js';
import { RefitNames, stemFor } from './refit-names.js';
import type { Collision, Naming } from './refit-names.js';
import { narrower } from './refit-widths.js';

/** An image that may be refitted, from a survey or a folder. */
export interface RefitSource {
  readonly image: ImageFile;
  /** `null` where it cannot be encoded. */
  readonly encoded: Encoded | null | undefined;
  /** The addresses, or paths, that a refitted file replaces. */
  readonly originals: readonly string[];
  /** Why it stays as it is, where that is known already. */
  readonly reason: string | null;
  /** Its name where it stays as it is. */
  readonly keptAs: readonly string[];
  /** Path of its first original. */
  readonly path: string;
  /** The folder of its host's files below the refit's folder: empty, or a name followed by `/`. */
  readonly folder: string;
  /** The prefix of paths below that folder, in addresses on the site. */
  readonly root: string;
  /** Widths to offer it in, beside the need; none where it is offered in one. */
  readonly widths: readonly number[];
  /** The widest of them that may be wider than the need; 0 for none. */
  readonly widest: number;
}

export interface RefitPlan<Source extends RefitSource> {
  readonly jobs: readonly (RefitJob & { readonly source: Source })[];
  readonly kept: readonly KeptFile[];
  readonly collisions: readonly Collision[];
}

/** The names of files and the metadata written into them. */
export interface RefitWriting {
  readonly naming: Naming;
  /** The entries that a person made, by content hash. */
  readonly credits: ReadonlyMap<string, Credit>;
}

/** Why an image stays as it is if the file made is no gain. */
export const noGain = 'no smaller file is good enough';

/**
 * Which files are made, under which names, and which images stay as they are.
 *
 * @param originals paths of all files that are there, with their content hashes
 */
export function planRefit<Source extends RefitSource>(
  sources: readonly Source[],
  originals: readonly (readonly [path: string, contentHash: string])[],
  writing: RefitWriting,
): RefitPlan<Source> {
  const names = new RefitNames(writing.naming, originals);
  const jobs: (RefitJob & { readonly source: Source })[] = [];
  const kept: KeptFile[] = [];
  for (const source of sources) {
    const { encoded, image } = source;
    const reason = source.reason ?? (encoded && !isSmaller(image, encoded) ? noGain : null);
    if (reason !== null || !encoded?.resultHash)
      kept.push(...source.keptAs.map((url) => ({ url, reason: reason ?? noGain })));
    else jobs.push({ ...jobFor(source, encoded, names, writing), source });
  }
  return { jobs, kept, collisions: names.collisions };
}

function jobFor(
  { image, originals, path, folder, root, widths, widest }: RefitSource,
  encoded: Encoded,
  names: RefitNames,
  { naming, credits }: RefitWriting,
): RefitJob {
  const { contentHash, mediaType, intrinsic, frames } = image;
  const { need, nature, format } = encoded;
  const stem = stemFor(path, folder, contentHash, naming);
  const size = need ?? { width: null, height: null };
  const mainPath = names.take({ stem, ...size, format, contentHash, main: true });
  const variants: VariantJob[] = [];
  if (format !== 'svg' && nature !== 'vector' && need && intrinsic) {
    const fallback = fallbackFor(nature, format, mediaType);
    const add = (one: EncodedFormat, width: number) => {
      const main = width === need.width;
      const wanted = main ? need : pixelsAt(intrinsic, width / intrinsic.width);
      variants.push({
        ...{ contentHash, format: one, size: wanted, use: one === format ? 'width' : 'fallback' },
        path: names.take({ stem, ...wanted, format: one, contentHash, main }),
      });
    };
    if (fallback) add(fallback, need.width);
    // Of an animation every frame would have to be encoded again: it has one width.
    if (frames === 1 && widths.length > 0)
      for (const width of narrower(widths, Math.max(need.width, widest), need.width))
        for (const one of fallback ? [format, fallback] : [format]) add(one, width);
  }
  return {
    ...{ file: fileFor(image, encoded, originals, mainPath), nature, frames, folder, root },
    variants,
    quality: chosenQuality(encoded),
    credit: credits.get(contentHash) ?? null,
  };
}

/** The file that replaces an image. */
function fileFor(
  image: ImageFile,
  encoded: Encoded,
  originals: readonly string[],
  path: string,
): RefitFile {
  const { contentHash, intrinsic, bytes, mediaType } = image;
  const { need, format, steps } = encoded;
  const noPixels = { width: null, height: null };
  // A vector counts as what it is compressed, and is written as the text that it is.
  const after = format === 'svg' ? bytes - steps.metadata : steps.best;
  return {
    ...{ originals, contentHash, path, resultHash: encoded.resultHash! },
    mediaType: format === 'svg' ? 'image/svg+xml' : `image/${format}`,
    from: { ...(intrinsic ?? noPixels), bytes, mediaType },
    to: { ...(need ?? noPixels), bytes: after, format },
    savedBytes: bytes - after,
  };
}

/** Whether the file made is smaller than the original. */
function isSmaller(file: ImageFile, { steps }: Encoded): boolean {
  return isVector(file) ? steps.metadata > 0 : steps.best < file.bytes;
}

/**
 * The quality of the needed file: that of the smallest attempt in its format that is similar enough. Metadata
 * makes the file larger than the attempt.
 */
function chosenQuality({ format, steps, attempts }: Encoded): number | null {
  const own = attempts.filter((one) => one.format === format && one.bytes <= steps.best);
  return (
    own.reduce<EncodeAttempt | null>(
      (most, one) => (most && most.bytes >= one.bytes ? most : one),
      null,
    )?.quality ?? null
  );
}
