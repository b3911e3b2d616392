import { hostOf, relativePathOf } from '../address/address.js';
import type { Credit } from './credit.js';
import type { ElementImages } from './element-images.js';
import { isVector } from '../survey/image-file.js';
import type { ImageFile } from '../survey/image-file.js';
import { pixelsAt } from '../policy/need.js';
import type { EncodedFormat } from '../policy/policy.js';
import type { RankedImage } from '../rank/ranked-image.js';
import { RefitNames, stemFor } from './refit-names.js';
import type { Collision, Naming } from './refit-names.js';
import { fallbackFor } from './refit-job.js';
import type { KeptFile, RefitFile, RefitJob, VariantJob } from './refit-job.js';
import { narrower } from './refit-widths.js';
import type { Encoded, EncodeAttempt } from '../survey/encoded.js';

/** An image of a survey that is refitted. */
export interface SurveyOrder extends RefitJob {
  readonly image: RankedImage;
}

export interface RefitPlan {
  readonly orders: readonly SurveyOrder[];
  readonly kept: readonly KeptFile[];
  readonly collisions: readonly Collision[];
}

/** What a plan depends on besides the images. */
export interface PlanGround {
  /** The widths that the slot families of a file are to be offered in, by its place in the list of files. */
  readonly widthsOf: (place: number) => readonly number[];
  readonly elements: ElementImages;
  readonly naming: Naming;
  /** What somebody has filled in, by content hash. */
  readonly credits: ReadonlyMap<string, Credit>;
  /** Why a file stays as it is, where that is known already, by content hash. */
  readonly reasons: ReadonlyMap<string, string>;
}

/** Which files are to be made, under which names, and which images stay as they are. */
export function planRefit(images: readonly RankedImage[], ground: PlanGround): RefitPlan {
  const orders: SurveyOrder[] = [];
  const kept: KeptFile[] = [];
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const hosts = own.flatMap(({ urls }) => urls.filter(isFetched).map(hostOf));
  const severalHosts = new Set(hosts).size > 1;
  const originals = own.flatMap(({ urls, file }) =>
    urls
      .filter(isFetched)
      .map((url) => [folderOf(url, severalHosts) + relativePathOf(url), file.contentHash] as const),
  );
  const names = new RefitNames(ground.naming, originals);
  for (const image of images) {
    const { encoded } = image;
    const reason = ground.reasons.get(image.file.contentHash) ?? reasonToKeep(image);
    if (reason !== undefined || !encoded?.resultHash)
      kept.push({ url: image.url, reason: reason ?? 'nothing smaller is good enough' });
    else orders.push(orderFor(image, encoded, severalHosts, names, ground));
  }
  return { orders, kept, collisions: names.collisions };
}

function orderFor(
  image: RankedImage,
  encoded: Encoded,
  severalHosts: boolean,
  names: RefitNames,
  { widthsOf, elements, naming, credits }: PlanGround,
): SurveyOrder {
  const { contentHash, mediaType, intrinsic, frames } = image.file;
  const { need, nature, format } = encoded;
  const url = image.urls.find(isFetched)!;
  const folder = folderOf(url, severalHosts);
  const stem = stemFor(relativePathOf(url), folder, contentHash, naming);
  const size = need ?? { width: null, height: null };
  const path = names.take({ stem, ...size, format, contentHash, main: true });
  const originals = image.urls.filter(isFetched);
  const file = fileFor(image.file, encoded, originals, path);
  const variants: VariantJob[] = [];
  if (format !== 'svg' && nature !== 'vector' && need && intrinsic) {
    const fallback = fallbackFor(nature, format, mediaType);
    const add = (one: EncodedFormat, width: number) => {
      const isMain = width === need.width;
      const wanted = isMain ? need : pixelsAt(intrinsic, width / intrinsic.width);
      variants.push({
        ...{ contentHash, format: one, size: wanted, use: one === format ? 'width' : 'fallback' },
        path: names.take({ stem, ...wanted, format: one, contentHash, main: isMain }),
      });
    };
    if (fallback) add(fallback, need.width);
    // Of an animation every frame would have to be made again: it has one width.
    if (frames === 1 && hasSourceSet(image)) {
      const wanted = [...widthsOf(image.fileIndex), ...elements.moreWidths(image)];
      const most = Math.max(need.width, ...elements.moreWidths(image));
      for (const width of narrower(wanted, most, need.width))
        for (const one of fallback ? [format, fallback] : [format]) add(one, width);
    }
  }
  const root = severalHosts ? `${new URL(url).origin}/` : '/';
  return {
    ...{ image, file, nature, frames, folder, root, variants },
    quality: chosenQuality(encoded),
    credit: credits.get(contentHash) ?? null,
  };
}

/** Where the files of a host lie below the refit's folder. */
function folderOf(url: string, severalHosts: boolean): string {
  return severalHosts ? `${hostOf(url).replace(/[^\w.-]/g, '_')}/` : '';
}

/** The file that takes the place of an image. */
export function fileFor(
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

/** Whether what was made of a file is smaller than it. */
export function isSmaller(file: ImageFile, { steps }: Encoded): boolean {
  return isVector(file) ? steps.metadata > 0 : steps.best < file.bytes;
}

/**
 * The quality that the needed file has: of the attempts in its format, that of the smallest which is like enough. What goes
 * along with a picture makes its file larger than the trial was.
 */
export function chosenQuality({ format, steps, attempts }: Encoded): number | null {
  const own = attempts.filter((one) => one.format === format && one.bytes <= steps.best);
  return (
    own.reduce<EncodeAttempt | null>(
      (most, one) => (most && most.bytes >= one.bytes ? most : one),
      null,
    )?.quality ?? null
  );
}

/** Whether an address is one of a file of its own, not of bytes in a document (`data:`, `blob:`). */
export function isFetched(url: string): boolean {
  return /^https?:/.test(url);
}

function reasonToKeep(image: RankedImage): string | undefined {
  const { file, encoded } = image;
  if (!image.urls.some(isFetched)) return 'its bytes stand in the document that shows it';
  if (image.thirdParty) return 'it belongs to a third party';
  if (!image.isPlaced) return 'no element shows it';
  if (!image.isJudged) return image.problem ?? 'it cannot be read';
  if (!encoded) return 'no page shows it';
  if (encoded.problem !== null) return encoded.problem;
  const exempt = image.rules.find((rule) => rule.exempt);
  if (exempt) return `the policy lets it be: ${exempt.reason}`;
  return isSmaller(file, encoded) ? undefined : 'nothing smaller is good enough';
}

/** Whether it stands in markup that can offer several widths. */
function hasSourceSet(image: RankedImage): boolean {
  return image.placed.some(({ kind, shown }) => kind === 'img' && shown);
}
