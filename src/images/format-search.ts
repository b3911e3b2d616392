import { searchQuality } from '../core/pixels/quality-search.js';
import type { QualityPrior } from '../core/pixels/quality-search.js';
import type { EncodedFormat, Policy } from '../core/policy/policy.js';
import { encodeExactly, encodePicture } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import type { Reduced } from './picture.js';

export interface FormatSearch {
  readonly formats: readonly EncodedFormat[];
  /** The format of the file as it is. */
  readonly own: EncodedFormat;
  readonly isDrawing: boolean;
  readonly policy: Policy;
}

/**
 * Encodes a picture in each of some formats and in its own: once if that is lossless, else as often as the quality search
 * takes. What of a large picture can be told from tiles of it is not tried on the whole: which format will be the
 * smallest, and near which quality.
 */
export async function searchFormats(
  picture: Reduced,
  frames: number,
  search: FormatSearch,
): Promise<readonly EncodedPicture[]> {
  const { own, isDrawing, policy } = search;
  const formats = inTurn(search.formats);
  const sample = isDrawing ? null : await picture.sample();
  const inAll = { isDrawing, policy };
  if (!sample) return encodesIn(picture, frames, { ...inAll, formats, own });
  const tried = await encodesIn(sample, 1, { ...inAll, formats, own });
  const { bytes, similarity } = best(tried, policy.similarity);
  // The edges between tiles are hard, and not in the picture: what nearly did on the sample may do on the whole.
  const enough = 1 - nearlyEnough * (1 - Math.min(similarity, policy.similarity));
  const promising = formats.filter((format) =>
    tried.some(
      (one) => one.format === format && one.similarity >= enough && one.bytes <= bytes * nearly,
    ),
  );
  return encodesIn(picture, frames, { ...inAll, formats: promising, own, tried });
}

/** An encode of a sample that differs this many times as much from it as is allowed may do on the whole picture. */
const nearlyEnough = 1.3;

/** A format whose sample is this little larger than the smallest one may be the smaller one for the whole picture. */
const nearly = 1.05;

interface Encodes extends FormatSearch {
  /** Encodes of a sample: searches begin where those ended. */
  readonly tried?: readonly EncodedPicture[];
}

async function encodesIn(
  picture: Reduced,
  frames: number,
  { formats, own, isDrawing, policy, tried }: Encodes,
): Promise<readonly EncodedPicture[]> {
  const made: EncodedPicture[] = [];
  const common = { isDrawing, policy, tried };
  for (const format of formats) {
    const least = smallest(made, policy.similarity)?.bytes;
    made.push(...(await encodesAs(picture, frames, { ...common, format, least })));
  }
  // Its own format tells what the format costs, beside what the quality does; and it may be the smallest after all.
  if (!made.some(({ format }) => format === own))
    made.push(...(await encodesAs(picture, frames, { ...common, format: own })));
  return made;
}

/** Formats that are usually the smallest come first: what cannot become smaller is not searched to the end. */
function inTurn(formats: readonly EncodedFormat[]): readonly EncodedFormat[] {
  return formats.toSorted((one, other) => searchOrder.indexOf(one) - searchOrder.indexOf(other));
}

const searchOrder: readonly EncodedFormat[] = ['avif', 'webp', 'jpeg', 'png', 'gif'];

interface OneFormat {
  readonly format: EncodedFormat;
  readonly isDrawing: boolean;
  readonly policy: Policy;
  /** Bytes of a file that is alike enough already: nothing larger is of use. */
  readonly least?: number | undefined;
  readonly tried?: readonly EncodedPicture[] | undefined;
}

/** Encodes in one format: once if it is lossless, else as often as the quality search takes. */
async function encodesAs(
  picture: Reduced,
  frames: number,
  { format, isDrawing, policy, tried = [], least }: OneFormat,
): Promise<readonly EncodedPicture[]> {
  if (isDrawing || !lossyFormats[format])
    return [await encodeExactly(picture, frames, format, isDrawing)];
  const first = (fullColour: boolean) => {
    const alike = tried.filter((one) => one.format === format && one.fullColour === fullColour);
    const quality = alike.length > 0 ? best(alike, policy.similarity).quality : null;
    return quality === null ? undefined : quality + beyondSample;
  };
  return searchFormat(picture, frames, { format, policy, least, first });
}

export interface QualitySearch {
  readonly format: EncodedFormat;
  readonly policy: Pick<Policy, 'similarity' | 'quality'>;
  /** Bytes of a file that is alike enough already: nothing larger is of use. */
  readonly least?: number | undefined;
  /** The quality to begin at, where more is known than what photographs usually need. */
  readonly first?: (fullColour: boolean) => number | undefined;
}

/**
 * Searches for the lowest quality of a lossy format that is enough; with all colours as well, where a quarter of them is not.
 *
 * @returns every encode that was made
 */
export async function searchFormat(
  picture: Reduced,
  frames: number,
  { format, policy, least = Infinity, first = () => undefined }: QualitySearch,
): Promise<readonly EncodedPicture[]> {
  const { fullColourFrom, ...usual } = lossyFormats[format] ?? unknownFormat;
  const made: EncodedPicture[] = [];
  // What is so far from enough that no quality will do is not searched to the end.
  const most = policy.quality.most + hopelesslyBeyond;
  const search = (fullColour: boolean, least: number) =>
    searchQuality(
      policy.similarity,
      policy.quality,
      async (quality) => {
        const one = await encodePicture(picture, frames, { format, quality, fullColour });
        made.push(one);
        return { ...one, quality };
      },
      (one) => one.bytes >= least || needed(one, policy.similarity, usual.fall) > most,
      { ...usual, first: first(fullColour) ?? usual.first },
    );
  const found = await search(false, least);
  const isEnough = found.similarity >= policy.similarity;
  const hasMoreColours = fullColourFrom < Infinity;
  if (hasMoreColours && (!isEnough || found.quality >= fullColourFrom) && found.bytes < least)
    await search(true, isEnough ? Math.min(least, found.bytes) : least);
  return made;
}

/** The whole picture has places that are harder than those of its sample: it needs about so much more quality. */
const beyondSample = 2;

interface LossyFormat extends QualityPrior {
  /** The quality from which on all colours at a lower quality may be smaller; infinite in a format that has them always. */
  readonly fullColourFrom: number;
}

/**
 * Where the search begins in each format, and how steep it is: medians over photographs of templates and wallpapers at the
 * default similarity (bench/priors.mjs).
 */
const lossyFormats: Readonly<Partial<Record<EncodedFormat, LossyFormat>>> = {
  avif: { first: 88, fall: 0.075, fullColourFrom: Infinity },
  webp: { first: 88, fall: 0.069, fullColourFrom: 96 },
  jpeg: { first: 84, fall: 0.067, fullColourFrom: 88 },
};

/** How far beyond the highest quality a search may aim before it is given up. */
const hopelesslyBeyond = 15;

const unknownFormat: LossyFormat = { first: 80, fall: 0.06, fullColourFrom: Infinity };

/** The quality that would probably be enough, from one that was not. */
function needed({ quality, similarity }: EncodedPicture, threshold: number, fall: number): number {
  return quality! + Math.log((1 - similarity) / Math.max(1e-6, 1 - threshold)) / fall;
}

/** Where no quality is enough, one that is this little less alike than the best is as good. */
const asGood = 1.05;

/** The smallest that is alike enough; where no quality is enough, the smallest of the most alike that have one. */
export function best(made: readonly EncodedPicture[], threshold: number): EncodedPicture {
  const enough = smallest(made, threshold);
  if (enough && (enough.quality !== null || made.every(({ quality }) => quality === null)))
    return enough;
  const lossy = made.filter(({ quality }) => quality !== null);
  const most = Math.max(...(lossy.length > 0 ? lossy : made).map((one) => one.similarity));
  return smallest(made, Math.min(threshold, 1 - asGood * (1 - most)))!;
}

/** The smallest of those that are alike enough; `undefined` when none is. */
function smallest(made: readonly EncodedPicture[], threshold: number): EncodedPicture | undefined {
  return made
    .filter((one) => one.similarity >= threshold)
    .reduce<EncodedPicture | undefined>(
      (least, one) => (least && least.bytes <= one.bytes ? least : one),
      undefined,
    );
}
