import { area } from '../core/base/size.js';
import type { Size } from '../core/base/size.js';
import type { EncodedFormat, Nature, Policy } from '../core/policy/policy.js';
import { encodeExactly } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import { lossyFormat } from './lossy-formats.js';
import { searchFormat } from './lossy-search.js';
import { encodesToTell, ownBytesAt, ownQualityAt } from './own-format.js';
import type { Reduced } from './picture.js';
import { fewTiles } from './sample.js';

export interface FormatSearch {
  readonly formats: readonly EncodedFormat[];
  /** The format of the file as it is. */
  readonly own: EncodedFormat;
  readonly nature: Nature;
  readonly policy: Policy;
  /** Drafts of the whole picture that are there already. */
  readonly drafts?: readonly EncodedPicture[] | undefined;
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
  const { own, nature, policy, drafts } = search;
  const formats = inTurn(new Set([...search.formats, own]));
  const inAll = { own, nature, policy };
  const sample = isSampled(picture.size, nature) ? await picture.sample(fewTiles) : null;
  if (!sample) {
    const known = await encodesIn(picture, frames, { ...inAll, formats, drafts });
    return withOwn(picture, frames, known, inAll);
  }
  const onTiles = await withOwn(
    sample,
    1,
    await encodesIn(sample, 1, { ...inAll, formats }),
    inAll,
  );
  const tried = onTiles.made;
  const { bytes, similarity } = onTiles.chosen;
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
  const made = [
    ...(await encodesIn(picture, frames, { ...inAll, formats: promising, tried, drafts })),
  ];
  // Where none of them does on the whole picture, one that is larger may.
  if (smallest(made, policy.similarity) === undefined) {
    const others = formats.filter((format) => !promising.includes(format));
    made.push(...(await encodesIn(picture, frames, { ...inAll, formats: others, tried, drafts })));
  }
  if (made.some(({ format }) => format === own)) return withOwn(picture, frames, made, inAll);
  const chosen = best(made, policy.similarity);
  const inThatFormat = tried.filter(({ format }) => format === chosen.format);
  const larger = onTiles.ownBytes / best(inThatFormat, policy.similarity).bytes;
  return { made, chosen, ownBytes: Math.max(chosen.bytes, Math.round(chosen.bytes * larger)) };
}

/**
 * Chooses, and tells the bytes in the format of the file as it is, with the encodes that this takes. Where those seem to be
 * fewer than what was chosen, the own format is searched, too.
 */
async function withOwn(
  picture: Reduced,
  frames: number,
  found: readonly EncodedPicture[],
  { own, nature, policy }: Omit<FormatSearch, 'formats'>,
): Promise<FormatsFound> {
  const made = [...found];
  let chosen = best(made, policy.similarity);
  if (chosen.format === own) return { made, chosen, ownBytes: chosen.bytes };
  const threshold = Math.min(policy.similarity, chosen.similarity);
  const asked = { own, nature, policy, threshold };
  made.push(...(await encodesToTell(picture, frames, made, asked)));
  if (ownBytesAt(own, made, threshold) < chosen.bytes) {
    if (nature !== 'drawing' && lossyFormat(own)) {
      const first = (fullColour: boolean) => ownQualityAt(own, made, policy.similarity, fullColour);
      const search = { format: own, policy, least: chosen.bytes, first };
      made.push(...(await searchFormat(picture, frames, search)));
    }
    chosen = best(made, policy.similarity);
  }
  // What was only tried near a similarity may seem to be smaller than the smallest that was made.
  const ownBytes = Math.max(chosen.bytes, ownBytesAt(own, made, threshold));
  return { made, chosen, ownBytes: chosen.format === own ? chosen.bytes : ownBytes };
}

/** Whether a picture is looked at in tiles first. */
export function isSampled(size: Size, nature: Nature): boolean {
  return nature !== 'drawing' && area(size) >= leastSampled;
}

/** Pixels from which a picture is searched on tiles of it first: below, that takes as long as the encodes that it saves. */
const leastSampled = 2_000_000;

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
  { formats, nature, policy, tried, drafts }: Encodes,
): Promise<readonly EncodedPicture[]> {
  const made: EncodedPicture[] = [];
  for (const format of formats) {
    const least = smallest(made, policy.similarity)?.bytes;
    if (nature === 'photograph' && least !== undefined && settles(made, policy)) break;
    made.push(
      ...(await encodesAs(picture, frames, { nature, policy, tried, drafts, format, least })),
    );
  }
  return made;
}

/**
 * Whether no other format can be smaller than what was made: of 82 wallpapers, 320 and 640 pixels wide, none was smaller in
 * another format than in AVIF, where AVIF was enough.
 */
function settles(made: readonly EncodedPicture[], { similarity }: Pick<Policy, 'similarity'>) {
  return (
    similarity <= mostSettled &&
    made.some(
      (one) =>
        one.format === 'avif' &&
        !one.isDraft &&
        one.similarity >= similarity &&
        one.bytes >= leastSettled,
    )
  );
}

const leastSettled = 5_000;
/** Beyond this similarity nothing was tried out. */
const mostSettled = 0.995;

/** Formats that are usually the smallest come first: what cannot become smaller is not searched to the end. */
export function inTurn(formats: ReadonlySet<EncodedFormat>): readonly EncodedFormat[] {
  return [...formats].sort((one, other) => searchOrder.indexOf(one) - searchOrder.indexOf(other));
}

const searchOrder: readonly EncodedFormat[] = ['avif', 'webp', 'jpeg', 'png', 'gif'];

interface OneFormat {
  readonly format: EncodedFormat;
  readonly nature: Nature;
  readonly policy: Policy;
  /** Bytes of a file that is alike enough already: nothing larger is of use. */
  readonly least?: number | undefined;
  readonly tried?: readonly EncodedPicture[] | undefined;
  readonly drafts?: readonly EncodedPicture[] | undefined;
}

/** Encodes in one format: once if it is lossless, else as often as the quality search takes. */
async function encodesAs(
  picture: Reduced,
  frames: number,
  { format, nature, policy, tried = [], drafts = [], least }: OneFormat,
): Promise<readonly EncodedPicture[]> {
  if (nature === 'drawing' || !lossyFormat(format))
    return [await encodeExactly(picture, frames, format, nature === 'drawing')];
  const first = (fullColour: boolean) => {
    const alike = tried.filter((one) => one.format === format && one.fullColour === fullColour);
    const quality = alike.length > 0 ? best(alike, policy.similarity).quality : null;
    return quality === null ? undefined : quality + beyondSample;
  };
  return searchFormat(picture, frames, { format, policy, least, first, drafts });
}

/** The whole picture has places that are harder than those of its sample: it needs about so much more quality. */
const beyondSample = 1;

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
