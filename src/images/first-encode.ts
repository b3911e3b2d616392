import { bytesAt } from '../core/pixels/bytes-at.js';
import { formatsFor } from '../core/policy/policy.js';
import type { EncodedFormat, Nature, Policy } from '../core/policy/policy.js';
import { area } from '../core/base/size.js';
import type { Size } from '../core/base/size.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { encodeExactly, encodePicture } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import { inTurn, isSampled } from './format-search.js';
import { lossyFormat } from './lossy-formats.js';
import { withinRange } from './lossy-search.js';
import { natureOf } from './nature.js';
import { formatOf } from './own-format.js';
import { reduce } from './picture.js';
import { manyTiles } from './sample.js';

/** What one encode of a picture tells, before its file is searched for. */
export interface FirstEncode {
  readonly nature: Nature;
  readonly format: EncodedFormat;
  /** Bytes that the file will probably have (docs/survey.md tells how near that is). */
  readonly bytes: number;
  /** What the search need not make again. */
  readonly drafts: readonly EncodedPicture[];
}

/**
 * Encodes a picture once at its need: one that is searched in a slow format with the draft that the search begins with, one
 * whose pixels are kept in the format that is usually the smallest.
 *
 * @param body the bytes of `file`
 * @returns `undefined` for what is not told by one still picture
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encodeFirst(
  body: Buffer,
  file: ImageFile,
  need: Size,
  policy: Policy,
): Promise<FirstEncode | undefined> {
  if (file.frames > 1) return undefined;
  const nature = await natureOf(body, file);
  const formats = inTurn(new Set(formatsFor(nature, formatOf(file), policy)));
  const format = nature === 'drawing' ? formats.find((one) => one !== 'avif') : formats[0];
  if (!format) return undefined;
  const picture = await reduce(body, 1, need);
  const lossy = nature === 'drawing' ? undefined : lossyFormat(format);
  if (!lossy) {
    const { bytes } = await encodeExactly(picture, 1, format, nature === 'drawing');
    return { nature, format, bytes, drafts: [] };
  }
  const tiles = isSampled(need, nature) ? await picture.sample(manyTiles) : null;
  const tried = tiles ?? picture;
  const quality = withinRange(lossy.first, policy);
  const isDraft = lossy.isSlow;
  const made = await encodePicture(tried, 1, { format, quality, ...(isDraft && { isDraft }) });
  const enough = isDraft
    ? bytesAfterDraft(made, policy.similarity)
    : bytesAt([made], policy.similarity);
  return {
    ...{ nature, format },
    bytes: Math.round((enough * area(need)) / area(tried.size)),
    // Its bytes are of no use to anybody.
    drafts: isDraft && !tiles ? [{ ...made, body: Buffer.alloc(0) }] : [],
  };
}

/**
 * The bytes of the file that is found where its draft was made: fitted to 71 photographs of templates and wallpapers. What
 * makes a draft much less like its picture is its lack of effort, and says little of how much more the file will need.
 */
function bytesAfterDraft({ bytes, similarity }: EncodedPicture, threshold: number): number {
  const beyond = (1 - similarity) / (1 - threshold);
  return 0.84 * bytes * Math.min(1.5, Math.max(0.37, beyond)) ** 0.68;
}
