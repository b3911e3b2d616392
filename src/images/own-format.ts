import { bytesAt, tellsBytesAt } from '../core/pixels/bytes-at.js';
import type { EncodedFormat, Nature, Policy } from '../core/policy/policy.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { encodeExactly, encodePicture } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import { lossyFormat, qualityNeeded } from './lossy-formats.js';
import type { LossyFormat } from './lossy-formats.js';
import type { Reduced } from './picture.js';

export interface OwnFormat {
  /** The format of the file as it is. */
  readonly own: EncodedFormat;
  readonly nature: Nature;
  readonly policy: Pick<Policy, 'quality'>;
  /** What the bytes are asked at. */
  readonly threshold: number;
}

/** The format to write for each media type if the format is to stay. */
const formats: Readonly<Record<string, EncodedFormat>> = {
  'image/jpeg': 'jpeg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/gif': 'gif',
  'image/avif': 'avif',
};

/** The format to write if that of a file is to stay: PNG where it cannot be written. */
export function formatOf({ mediaType }: Pick<ImageFile, 'mediaType'>): EncodedFormat {
  return formats[mediaType] ?? 'png';
}

/** More encodes than this are not made only to tell the bytes of a format that is not chosen. */
const mostMore = 3;

/**
 * Encodes a picture in its own format until its bytes at a similarity are known to a few per cent: nobody is given that file,
 * it only tells how much of the waste is the quality's and how much the format's.
 *
 * @param made encodes of the picture in any format
 * @returns the encodes that had to be made besides
 */
export async function encodesToTell(
  picture: Reduced,
  frames: number,
  made: readonly EncodedPicture[],
  { own, nature, policy, threshold }: OwnFormat,
): Promise<readonly EncodedPicture[]> {
  const isMade = made.some(({ format }) => format === own);
  const prior = nature === 'drawing' ? undefined : lossyFormat(own);
  if (!prior)
    return isMade ? [] : [await encodeExactly(picture, frames, own, nature === 'drawing')];
  const more: EncodedPicture[] = [];
  while (more.length < mostMore) {
    const series = seriesIn(own, [...made, ...more]);
    const { quality, fullColour } = nextTry(series, threshold, prior);
    // What would have to be too good with fewer colours may be much smaller with all of them: only those tell.
    const telling = series.filter(([one]) => (one!.fullColour ?? false) === fullColour);
    if (telling.some((one) => tellsBytesAt(one, threshold))) break;
    const within = Math.min(policy.quality.most, Math.max(policy.quality.least, quality));
    const known = series.flat().filter((one) => (one.fullColour ?? false) === fullColour);
    if (known.some((one) => one.quality === within)) break;
    more.push(await encodePicture(picture, frames, { format: own, quality: within, fullColour }));
  }
  return more;
}

/** Bytes of a picture in its own format at a similarity, from what was encoded in it. */
export function ownBytesAt(
  own: EncodedFormat,
  made: readonly EncodedPicture[],
  threshold: number,
): number {
  const series = seriesIn(own, made);
  if (series.length === 0)
    return Math.min(...made.filter(({ format }) => format === own).map(({ bytes }) => bytes));
  const telling = series.filter((one) => tellsBytesAt(one, threshold));
  return Math.min(...(telling.length > 0 ? telling : series).map((one) => bytesAt(one, threshold)));
}

/** The quality at which a picture would have a similarity in its own format; `undefined` where nothing was tried. */
export function ownQualityAt(
  own: EncodedFormat,
  made: readonly EncodedPicture[],
  threshold: number,
  fullColour: boolean,
): number | undefined {
  const prior = lossyFormat(own);
  const known = seriesIn(own, made).find(([one]) => (one!.fullColour ?? false) === fullColour);
  const last = known?.at(-1);
  if (!prior || !last) return undefined;
  return Math.ceil(qualityNeeded({ ...last, quality: last.quality! }, threshold, prior));
}

/** Fewer colours are tried up to so many steps beyond where all of them may be smaller. */
const muchColour = 4;

/** Where the one with fewer colours would have to be too good, all colours are tried. */
function nextTry(
  series: readonly (readonly EncodedPicture[])[],
  threshold: number,
  prior: LossyFormat,
): { quality: number; fullColour: boolean } {
  const tried = series.at(-1);
  if (!tried) return { quality: prior.first, fullColour: false };
  const quality = Math.round(qualityBetween(tried, threshold, prior));
  const fullColour = tried.some((one) => one.fullColour);
  const { fullColour: all } = prior;
  if (!all || fullColour || quality < all.from + muchColour) return { quality, fullColour };
  return { quality: all.first, fullColour: true };
}

/** The quality at which a similarity would be reached: between what was too little and what was enough, where there are both. */
function qualityBetween(
  tried: readonly EncodedPicture[],
  threshold: number,
  prior: LossyFormat,
): number {
  const known = tried
    .map(({ quality, similarity }) => ({ quality: quality!, similarity }))
    .sort((one, other) => one.quality - other.quality);
  const enough = known.find(({ similarity }) => similarity >= threshold);
  const tooLittle = known.findLast(({ similarity }) => similarity < threshold);
  if (!enough || !tooLittle || enough.quality < tooLittle.quality)
    return qualityNeeded(enough ?? known.at(-1)!, threshold, prior);
  const way = Math.log((1 - tooLittle.similarity) / Math.max(1e-6, 1 - enough.similarity));
  const measured = { ...prior, fall: way / (enough.quality - tooLittle.quality) };
  return qualityNeeded(tooLittle, threshold, measured);
}

/** The encodes in a format that have a quality: those with fewer colours, and those with all of them. */
function seriesIn(
  format: EncodedFormat,
  made: readonly EncodedPicture[],
): readonly (readonly EncodedPicture[])[] {
  const ones = made.filter((one) => one.format === format && one.quality !== null && !one.isDraft);
  const series = [false, true].map((all) =>
    ones.filter((one) => (one.fullColour ?? false) === all),
  );
  return series.filter((one) => one.length > 0);
}
