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

/** The encodes made of a picture, and what came of them. */
export interface FormatsFound {
  readonly made: readonly EncodedPicture[];
  readonly chosen: EncodedPicture;
  /** Bytes in the format of the file as it is, as much like the picture as the chosen encode. */
  readonly ownBytes: number;
}

/**
 * Encodes a picture in each of some formats and in its own: once if that is lossless, else as often as the quality search
 * takes. What of a large picture can be told from tiles of it is not tried on the whole: which format will be the
 * smallest, near which quality, and how much larger its own is.
 */
export async function searchFormats(
  picture: Reduced,
  frames: number,
  search: FormatSearch,
): Promise<FormatsFound> {
  const { own, isDrawing, policy } = search;
  const formats = inTurn(new Set([...search.formats, own]));
  const inAll = { own, isDrawing, policy };
  const sample = isDrawing ? null : await picture.sample();
  if (!sample) {
    const made = await encodesIn(picture, frames, { ...inAll, formats });
    const chosen = best(made, policy.similarity);
    return { made, chosen, ownBytes: bytesIn(own, made, chosen, policy) };
  }
  const tried = await encodesIn(sample, 1, { ...inAll, formats });
  const { bytes, similarity } = best(tried, policy.similarity);
  // The edges between tiles are hard, and not in the picture: what nearly did on the sample may do on the whole.
  const enough = 1 - nearlyEnough * (1 - Math.min(similarity, policy.similarity));
  const promising = formats.filter((format) =>
    tried.some(
      (one) =>
        !one.isDraft &&
        one.format === format &&
        one.similarity >= enough &&
        one.bytes <= bytes * nearly,
    ),
  );
  const made = [...(await encodesIn(picture, frames, { ...inAll, formats: promising, tried }))];
  // Where none of them does on the whole picture, one that is larger may.
  if (smallest(made, policy.similarity) === undefined) {
    const others = formats.filter((format) => !promising.includes(format));
    made.push(...(await encodesIn(picture, frames, { ...inAll, formats: others, tried })));
  }
  const chosen = best(made, policy.similarity);
  if (made.some(({ format }) => format === own))
    return { made, chosen, ownBytes: bytesIn(own, made, chosen, policy) };
  const onTiles = best(
    tried.filter(({ format }) => format === chosen.format),
    policy.similarity,
  );
  const larger = bytesIn(own, tried, onTiles, policy) / onTiles.bytes;
  return { made, chosen, ownBytes: Math.round(chosen.bytes * larger) };
}

/** Bytes of the smallest encode in one format that is as much like the picture as another is, or as it must be. */
function bytesIn(
  format: EncodedFormat,
  made: readonly EncodedPicture[],
  other: EncodedPicture,
  policy: Pick<Policy, 'similarity'>,
): number {
  const ones = made.filter((one) => one.format === format);
  return best(ones, Math.min(policy.similarity, other.similarity)).bytes;
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
    // Its own format is searched to the end even so: it tells what the format costs, beside what the quality does.
    const least = format === own ? undefined : smallest(made, policy.similarity)?.bytes;
    made.push(...(await encodesAs(picture, frames, { ...common, format, least })));
  }
  return made;
}

/** Formats that are usually the smallest come first: what cannot become smaller is not searched to the end. */
function inTurn(formats: ReadonlySet<EncodedFormat>): readonly EncodedFormat[] {
  return [...formats].sort((one, other) => searchOrder.indexOf(one) - searchOrder.indexOf(other));
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
 * Where an encode takes long, a draft tells where to begin.
 *
 * @returns every encode that was made
 */
export async function searchFormat(
  picture: Reduced,
  frames: number,
  { format, policy, least = Infinity, first = () => undefined }: QualitySearch,
): Promise<readonly EncodedPicture[]> {
  const { fullColourFrom, isSlow, ...usual } = lossyFormats[format] ?? unknownFormat;
  const made: EncodedPicture[] = [];
  const tryOne = async (quality: number, fullColour: boolean, isDraft = false) => {
    const one = await encodePicture(picture, frames, { format, quality, fullColour, isDraft });
    made.push(one);
    return { ...one, quality };
  };
  // What is so far from enough that no quality will do is not searched to the end.
  const most = policy.quality.most + hopelesslyBeyond;
  const search = async (fullColour: boolean, least: number) => {
    let begin = first(fullColour) ?? usual.first;
    if (isSlow === true) {
      const draft = await tryOne(Math.min(policy.quality.most, begin), fullColour, true);
      begin = Math.ceil(needed(draft, policy.similarity, usual.fall) - beyondDraft);
    }
    return searchQuality(
      policy.similarity,
      policy.quality,
      (quality) => tryOne(quality, fullColour),
      (one) => {
        const quality = needed(one, policy.similarity, usual.fall);
        return quality > most || one.bytes * shrink ** Math.max(0, one.quality - quality) >= least;
      },
      { ...usual, first: begin },
    );
  };
  const found = await search(false, least);
  const isEnough = found.similarity >= policy.similarity;
  const hasMoreColours = fullColourFrom < Infinity;
  if (hasMoreColours && (!isEnough || found.quality >= fullColourFrom) && found.bytes < least)
    await search(true, isEnough ? Math.min(least, found.bytes) : least);
  return made;
}

/** What more effort gains, in steps of quality. */
const beyondDraft = 0.5;

/** The whole picture has places that are harder than those of its sample: it needs about so much more quality. */
const beyondSample = 2;

interface LossyFormat extends QualityPrior {
  /** The quality from which on all colours at a lower quality may be smaller; infinite in a format that has them always. */
  readonly fullColourFrom: number;
  /** Whether an encode takes so long that a draft is to tell where the search begins. */
  readonly isSlow?: boolean;
}

/**
 * Where the search begins in each format, and how steep it is: medians over photographs of templates and wallpapers at the
 * default similarity (bench/priors.mjs).
 */
const lossyFormats: Readonly<Partial<Record<EncodedFormat, LossyFormat>>> = {
  avif: { first: 88, fall: 0.075, fullColourFrom: Infinity, isSlow: true },
  webp: { first: 88, fall: 0.069, fullColourFrom: 96 },
  jpeg: { first: 84, fall: 0.067, fullColourFrom: 88 },
};

/** What is left of the bytes, at the least, at a quality of one less. */
const shrink = 0.93;

/** How far beyond the highest quality a search may aim before it is given up. */
const hopelesslyBeyond = 15;

const unknownFormat: LossyFormat = { first: 80, fall: 0.06, fullColourFrom: Infinity };

/** The quality that would probably be enough, from one that was not. */
function needed({ quality, similarity }: EncodedPicture, threshold: number, fall: number): number {
  return quality! + Math.log((1 - similarity) / Math.max(1e-6, 1 - threshold)) / fall;
}

/** Where no quality is enough, one that is this little less alike than the best is as good. */
const asGood = 1.05;

/** The smallest that is alike enough, drafts aside; where no quality is enough, the smallest of the most alike that have one. */
export function best(all: readonly EncodedPicture[], threshold: number): EncodedPicture {
  const made = all.filter(({ isDraft }) => !isDraft);
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
    .filter((one) => !one.isDraft && one.similarity >= threshold)
    .reduce<EncodedPicture | undefined>(
      (least, one) => (least && least.bytes <= one.bytes ? least : one),
      undefined,
    );
}
