import { searchQuality } from '../core/pixels/quality-search.js';
import type { EncodedFormat, Policy } from '../core/policy/policy.js';
import { encodePicture } from './encoded-picture.js';
import type { Way } from './encode.js';
import type { EncodedPicture } from './encoded-picture.js';
import { lossyFormat, qualityNeeded, wayToEncode } from './lossy-formats.js';
import type { LossyFormat } from './lossy-formats.js';
import type { Reduced } from './picture.js';

export interface QualitySearch {
  readonly format: EncodedFormat;
  readonly policy: Pick<Policy, 'similarity' | 'quality'>;
  /** Bytes of a file that is alike enough already: nothing larger is of use. */
  readonly least?: number | undefined;
  /** The quality to begin at, where more is known than what photographs usually need. */
  readonly first?: (fullColour: boolean) => number | undefined;
  /** Drafts of the picture that are there already: they are not made again. */
  readonly drafts?: readonly EncodedPicture[];
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
  { format, policy, least = Infinity, first = () => undefined, drafts = [] }: QualitySearch,
): Promise<readonly EncodedPicture[]> {
  const { fullColour: moreColours, isSlow, ...usual } = lossyFormat(format) ?? unknownFormat;
  const made: EncodedPicture[] = [];
  const tryOne = async (quality: number, fullColour: boolean, way: Way = {}) => {
    const one = await encodePicture(picture, frames, { format, quality, fullColour, ...way });
    made.push(one);
    return { ...one, quality };
  };
  // What is so far from enough that no quality will do is not searched to the end.
  const most = policy.quality.most + hopelesslyBeyond;
  const draftOf = async (begin: number, fullColour: boolean) => {
    const quality = withinRange(begin, policy);
    const known = drafts.find(
      (one) =>
        one.format === format &&
        one.quality === quality &&
        (one.fullColour ?? false) === fullColour,
    );
    if (!known) return tryOne(quality, fullColour, { isDraft: true });
    made.push(known);
    return { ...known, quality };
  };
  /** Where a slow search begins, as a draft tells, and how its encodes are made. */
  const draft = async (begin: number, fullColour: boolean) => {
    const one = await draftOf(begin, fullColour);
    const way = wayToEncode(picture.size, one);
    const need = qualityNeeded(one, policy.similarity, usual) - beyondDraft(way);
    return { first: Math.ceil(need), way };
  };
  const search = async (fullColour: boolean, least: number) => {
    const begin = first(fullColour) ?? (fullColour && moreColours ? moreColours : usual).first;
    const found = isSlow ? await draft(begin, fullColour) : { first: begin, way: {} };
    return searchQuality(
      policy.similarity,
      policy.quality,
      (quality) => tryOne(quality, fullColour, found.way),
      (one) => {
        const quality = qualityNeeded(one, policy.similarity, usual);
        return quality > most || one.bytes * shrink ** Math.max(0, one.quality - quality) >= least;
      },
      { ...usual, first: found.first },
    );
  };
  const found = await search(false, least);
  const isEnough = found.similarity >= policy.similarity;
  if (moreColours && (!isEnough || found.quality >= moreColours.from) && found.bytes < least)
    await search(true, isEnough ? Math.min(least, found.bytes) : least);
  return made;
}

/** The quality nearest to one that is wanted, of those that a policy allows. */
export function withinRange(
  quality: number,
  { quality: { least, most } }: Pick<Policy, 'quality'>,
) {
  return Math.min(most, Math.max(least, quality));
}

/** What more effort gains, in steps of quality; a draft has ten bits. */
function beyondDraft({ isQuick = false, hasEightBits = false }: Way): number {
  if (isQuick) return 0.8;
  return hasEightBits ? -0.7 : 1.5;
}

/** What is left of the bytes, at the least, at a quality of one less. */
const shrink = 0.93;

/** How far beyond the highest quality a search may aim before it is given up. */
const hopelesslyBeyond = 15;

const unknownFormat: LossyFormat = {
  first: 80,
  fall: 0.06,
  fullColour: null,
  isSlow: false,
};
