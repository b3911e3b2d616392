import { pixelsAt } from '../../policy/need.js';
import type { EncodedFormat, Policy } from '../../policy/policy.js';
import { isVector } from '../../survey/image-file.js';
import type { ImageFile } from '../../survey/image-file.js';
import { chosenAttempt } from '../../survey/encoded.js';
import type { Encoded } from '../../survey/encoded.js';
import type { Size } from '../../base/size.js';
import type { Credit } from '../credit.js';
import { splitExtension } from '../../address/address.js';
import { fallbackFor, isReadEverywhere } from '../refit-job.js';
import type { KeptFile, RefitFile, RefitJob, VariantJob } from '../refit-job.js';
import { RefitNames, stemFor } from './refit-names.js';
import type { Collision, Naming, Original } from './refit-names.js';
import { narrower } from './refit-widths.js';

/** An image that may be refitted, from a survey or a folder. */
export interface RefitSource {
  readonly image: ImageFile;
  /** `null` where it cannot be encoded. */
  readonly encoded: Encoded | null | undefined;
  /** Its need, where `encoded` has more pixels than that. */
  readonly need?: Size | null | undefined;
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
  /**
   * Whether elements choose it among several widths of their site: then it keeps its width, and what is made of it in its
   * own format takes its place.
   */
  readonly inPlace: boolean;
  /** Widths that the site will make of it, and the paths that it will give them; none where it makes none. */
  readonly systemWidths: readonly { readonly width: number; readonly path: string }[];
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

/** Why an image stays as it is if the file made is a gain that is not worth the work. */
export const littleGain = 'a smaller file would save too little';

/** Why an image stays as it is if there are more than one refit should bring. */
export const othersFirst =
  'others waste more: survey and refit again when the files of this refit are in place';

/**
 * Which files are made, under which names, and which images stay as they are.
 *
 * @param sources those that waste the most first
 * @param originals all files that are known to be there
 * @param most images that files are made of
 */
export function planRefit<Source extends RefitSource>(
  sources: readonly Source[],
  originals: readonly Original[],
  writing: RefitWriting,
  worthwhile: Policy['worthwhile'],
  most = Infinity,
): RefitPlan<Source> {
  const names = new RefitNames(writing.naming, originals);
  const jobs: (RefitJob & { readonly source: Source })[] = [];
  const kept: KeptFile[] = [];
  for (const source of sources) {
    const { encoded } = source;
    const against = source.reason ?? reasonAgainst(source, worthwhile);
    const reason = against ?? (jobs.length < most ? null : othersFirst);
    if (reason !== null || !encoded?.resultHash)
      kept.push(...source.keptAs.map((url) => ({ url, reason: reason ?? noGain })));
    else jobs.push({ ...jobFor(source, encoded, names, writing), source });
  }
  return { jobs, kept, collisions: names.collisions };
}

/** Why nothing is to be made of an image, by the encode of the survey; `null` if that cannot tell, or something is. */
function reasonAgainst(source: RefitSource, worthwhile: Policy['worthwhile']): string | null {
  const { encoded, image } = source;
  if (!encoded || isOpen(source, encoded)) return null;
  const saved = isVector(image) ? encoded.steps.metadata : image.bytes - encoded.steps.best;
  return gainProblem(saved, image.bytes, worthwhile);
}

/** Why a smaller file is not worth the work; `null` if it is. */
export function gainProblem(
  savedBytes: number,
  bytes: number,
  worthwhile: Policy['worthwhile'],
): string | null {
  if (savedBytes <= 0) return noGain;
  const isLittle = savedBytes < worthwhile.bytes || savedBytes < worthwhile.share * bytes;
  return isLittle ? littleGain : null;
}

/** Whether the survey's own encode has another size than the file that is to be made. */
function isOpen(
  { inPlace, image: { intrinsic } }: RefitSource,
  { need }: Pick<Encoded, 'need'>,
): boolean {
  return inPlace && need !== null && intrinsic !== null && need.width !== intrinsic.width;
}

function jobFor(
  source: RefitSource,
  encoded: Encoded,
  names: RefitNames,
  { naming, credits }: RefitWriting,
): RefitJob {
  const { image, originals, path, folder, root, widths, widest, inPlace } = source;
  const { contentHash, mediaType, intrinsic, frames } = image;
  const { nature, format } = encoded;
  const open = isOpen(source, encoded);
  const need = open ? intrinsic : encoded.need;
  const stem = stemFor(path, folder, contentHash, naming);
  const size = need ?? { width: null, height: null };
  const inPlaceOf = (one: EncodedFormat | 'svg') =>
    inPlace && mediaType === `image/${one}` ? folder + path : undefined;
  const mainPath = names.take({
    ...{ stem, ...size, format, contentHash, main: true, inPlaceOf: inPlaceOf(format) },
  });
  const variants: VariantJob[] = [];
  if (format !== 'svg' && nature !== 'vector' && need && intrinsic) {
    const fallback = fallbackFor(nature, format, mediaType, inPlace);
    const add = (one: EncodedFormat, width: number) => {
      const main = width === need.width;
      const wanted = main ? need : pixelsAt(intrinsic, width / intrinsic.width);
      variants.push({
        ...{ contentHash, format: one, size: wanted, use: one === format ? 'width' : 'fallback' },
        path: names.take({
          ...{ stem, ...wanted, format: one, contentHash, main },
          inPlaceOf: main ? inPlaceOf(one) : undefined,
        }),
      });
    };
    if (fallback) add(fallback, need.width);
    // Of an animation every frame would have to be encoded again: it has one width.
    if (frames === 1 && widths.length > 0)
      for (const width of narrower(widths, Math.max(need.width, widest), need.width))
        for (const one of fallback ? [format, fallback] : [format]) add(one, width);
  }
  variants.push(...systemVariants(source, format, names));
  return {
    ...{ nature, frames, folder, root, isOpen: open, isInPlace: inPlace },
    isBeyondNeed: isOpen(source, { need: source.need ?? encoded.need }),
    file: fileFor(image, { ...encoded, need }, originals, mainPath),
    variants,
    quality: chosenAttempt(encoded)?.quality ?? null,
    credit: credits.get(contentHash) ?? null,
    master: null,
  };
}

/** The files for the widths that the site will make: its own, which they take the place of, and modern ones beside them. */
function systemVariants(
  { image: { contentHash, mediaType, intrinsic }, systemWidths }: RefitSource,
  format: EncodedFormat | 'svg',
  names: RefitNames,
): VariantJob[] {
  const own = mediaType.replace('image/', '') as EncodedFormat;
  if (!intrinsic || format === 'svg' || !(own === format || isReadEverywhere(own))) return [];
  return systemWidths.flatMap(({ width, path }): VariantJob[] => {
    const size = pixelsAt(intrinsic, width / intrinsic.width);
    const common = { contentHash, ...size, main: true };
    const { stem } = splitExtension(path);
    const at = names.take({ ...common, stem, format: own, inPlaceOf: path });
    const kept: VariantJob = { contentHash, format: own, size, use: 'fallback', path: at };
    if (own === format) return [{ ...kept, use: 'width' }];
    const modern = names.take({ ...common, stem, format });
    return [kept, { contentHash, format, size, use: 'width', path: modern }];
  });
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
    pixelsFrom: null,
  };
}
