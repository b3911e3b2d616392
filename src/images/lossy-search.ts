import { area } from '../core/base/size.js';
import { searchQuality } from '../core/pixels/quality-search.js';
import type { EncodedFormat, Policy } from '../core/policy/policy.js';
import { encodePicture } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import { lossyFormat, qualityNeeded } from './lossy-formats.js';
import type { LossyFormat } from './lossy-formats.js';
import type { Reduced } from './picture.js';

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
  const { fullColour: moreColours, isSlow, ...usual } = lossyFormat(format) ?? unknownFormat;
  const made: EncodedPicture[] = [];
  const tryOne = async (quality: number, fullColour: boolean, isDraft = false) => {
    const one = await encodePicture(picture, frames, { format, quality, fullColour, isDraft });
    made.push(one);
    return { ...one, quality };
  };
  // What is so far from enough that no quality will do is not searched to the end.
  const most = policy.quality.most + hopelesslyBeyond;
  /** The quality that is needed, as drafts tell: one that is far from it tells where the next is to be made. */
  const draftedNeed = async (begin: number, fullColour: boolean) => {
    const { least, most } = policy.quality;
    const draft = await tryOne(Math.min(most, begin), fullColour, true);
    const need = qualityNeeded(draft, policy.similarity, usual);
    const nearer = Math.min(most, Math.max(least, Math.round(need)));
    const isNear = Math.abs(need - draft.quality) <= nearDraft || nearer === draft.quality;
    if (isNear || area(picture.size) < leastDraftedTwice) return need;
    return qualityNeeded(await tryOne(nearer, fullColour, true), policy.similarity, usual);
  };
  const search = async (fullColour: boolean, least: number) => {
    let begin = first(fullColour) ?? (fullColour && moreColours ? moreColours : usual).first;
    if (isSlow) begin = Math.ceil((await draftedNeed(begin, fullColour)) - beyondDraft);
    return searchQuality(
      policy.similarity,
      policy.quality,
      (quality) => tryOne(quality, fullColour),
      (one) => {
        const quality = qualityNeeded(one, policy.similarity, usual);
        return quality > most || one.bytes * shrink ** Math.max(0, one.quality - quality) >= least;
      },
      { ...usual, first: begin },
    );
  };
  const found = await search(false, least);
  const isEnough = found.similarity >= policy.similarity;
  if (moreColours && (!isEnough || found.quality >= moreColours.from) && found.bytes < least)
    await search(true, isEnough ? Math.min(least, found.bytes) : least);
  return made;
}

/** What more effort gains, in steps of quality. */
const beyondDraft = 1;

/** A draft that is this near to what is needed tells it well. */
const nearDraft = 1.5;
/** Pixels from which a second draft takes less time than the encodes that it saves. */
const leastDraftedTwice = 500_000;

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
