import { gzip } from 'node:zlib';
import { promisify } from 'node:util';
import type { EncodedFormat, Nature, Policy } from '../core/policy/policy.js';
import { formatsFor } from '../core/policy/policy.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { area } from '../core/base/size.js';
import type { Size } from '../core/base/size.js';
import { usualExponent } from '../core/survey/encoded.js';
import type { EncodeAttempt, EncodedSteps } from '../core/survey/encoded.js';
import { carriedOf, encodeWith } from './kept-metadata.js';
import { encode } from './encode.js';
import type { EncodedPicture } from './encoded-picture.js';
import { searchFormats } from './format-search.js';
import { metadataBytes } from './metadata.js';
import { natureOf } from './nature.js';
import { formatOf } from './own-format.js';
import { reduce } from './picture.js';
import type { Reduced } from './picture.js';
import { attemptOf } from './attempt.js';

/** The file that an image should be, the bytes of each step towards it, and the encodes attempted. */
export interface NeededFile {
  readonly nature: Nature;
  readonly format: EncodedFormat;
  readonly body: Buffer;
  readonly steps: EncodedSteps;
  readonly attempts: readonly EncodeAttempt[];
}

/**
 * Really encodes a picture at its need, in the formats that the policy allows for its nature, each at the lowest
 * quality at which it is still like the ideal reduction, and keeps the smallest.
 *
 * @param body the bytes of `file`
 * @param drafts those that `encodeFirst` made of it at the same need
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encodeNeeded(
  body: Buffer,
  file: ImageFile,
  need: Size,
  policy: Policy,
  drafts: readonly EncodedPicture[] = [],
): Promise<NeededFile> {
  const { frames } = file;
  const nature = await natureOf(body, file);
  const picture = await reduce(body, frames, need);
  const own = formatOf(file);
  const { made, chosen, ownBytes } = await searchFormats(picture, frames, {
    formats: formatsFor(nature, own, policy),
    ...{ own, nature, policy, drafts },
  });
  const carried = carriedOf(policy.metadata, body);
  const result = carried ? await encodeWith(picture, chosen, carried) : chosen.body;
  // What is to go along with the picture is no waste, and costs the same in every format.
  const added = result.length - chosen.bytes;
  return {
    nature,
    format: chosen.format,
    body: result,
    steps: {
      metadata: Math.max(0, (await metadataBytes(body)) - added),
      exponent: await bytesExponent(picture, draftOf(chosen, made) ?? chosen, frames),
      sameFormat: ownBytes + added,
      best: result.length,
    },
    attempts: made.map(attemptOf),
  };
}

/** The smallest picture that is halved: below it, headers would count more than pixels. */
const leastHalved = 64;

/** The draft in the chosen format: its bytes follow the pixels as those of the file itself, in a sixth of the time. */
function draftOf(
  { format }: EncodedPicture,
  made: readonly EncodedPicture[],
): EncodedPicture | undefined {
  return made.filter((one) => one.isDraft && one.format === format).at(-1);
}

/**
 * How the bytes of a picture follow its pixels: as `pixels ^ exponent`, from a second encode of one kind at half the width
 * and height.
 */
async function bytesExponent(
  picture: Reduced,
  whole: EncodedPicture,
  frames: number,
): Promise<number> {
  const { width, height } = picture.size;
  if (frames > 1 || Math.min(width, height) < leastHalved) return usualExponent;
  const half = { width: Math.round(width / 2), height: Math.round(height / 2) };
  const smaller = await picture.smaller(half);
  // With the effort of the whole, or less effort would look like more pixels.
  const { length } = await encode(smaller.pipeline(), whole);
  const exponent = Math.log(whole.bytes / length) / Math.log(area(picture.size) / area(half));
  return Math.min(1.2, Math.max(0.3, exponent));
}

const compress = promisify(gzip);

/** Bytes of a text sent compressed, as every server can send it (gzip, RFC 1952, highest level). */
export async function compressedBytes(body: Buffer): Promise<number> {
  return (await compress(body, { level: 9 })).length;
}
