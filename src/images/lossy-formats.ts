import { area } from '../core/base/size.js';
import type { Size } from '../core/base/size.js';
import type { QualityPrior } from '../core/pixels/quality-search.js';
import type { EncodedFormat } from '../core/policy/policy.js';
import type { Way } from './encode.js';

/** What is known of a format before a picture is encoded in it. */
export interface LossyFormat extends QualityPrior {
  /** Where all colours are kept at a price; not in a format that always does. */
  readonly fullColour: FullColour | null;
  /** Whether an encode takes so long that a draft is to tell where the search begins. */
  readonly isSlow: boolean;
}

export interface FullColour {
  /** The quality without, from which on a file with all colours at a lower quality may be smaller. */
  readonly from: number;
  /** Where the search for that begins. */
  readonly first: number;
}

/**
 * Where the search begins in each format, and how steep it is: medians over photographs of templates and wallpapers at the
 * default similarity (bench/priors.mjs). All colours are tried in JPEG where a quarter is not enough: those pictures need more.
 */
const lossyFormats: Readonly<Partial<Record<EncodedFormat, LossyFormat>>> = {
  avif: { first: 84, fall: 0.065, fullColour: null, isSlow: true },
  webp: { first: 91, fall: 0.055, fullColour: { from: 91, first: 90 }, isSlow: false },
  jpeg: { first: 89, fall: 0.04, fullColour: { from: 88, first: 88 }, isSlow: false },
};

/**
 * How a picture is encoded in a slow format, as a draft of it tells. One with much detail is hardly larger with less effort, and
 * takes the longest; one with many pixels would hold up all others. One without detail is worse in its worst places with ten
 * bits, at the same similarity (docs/model.md).
 *
 * @param draft an encode with the least effort
 */
export function wayToEncode(size: Size, draft: { readonly bytes: number }): Way {
  const bitsPerPixel = (8 * draft.bytes) / area(size);
  return {
    isQuick: area(size) > manyPixels || bitsPerPixel > muchDetail,
    hasEightBits: bitsPerPixel < littleDetail,
  };
}

const manyPixels = 3_000_000;
/** Bits for each pixel of the draft. */
const [muchDetail, littleDetail] = [2.4, 0.5];

/** `undefined` for a format that has no quality to search for. */
export function lossyFormat(format: EncodedFormat): LossyFormat | undefined {
  return lossyFormats[format];
}

/** The quality at which an encode would probably be as similar as it must be. */
export function qualityNeeded(
  { quality, similarity }: { readonly quality: number; readonly similarity: number },
  threshold: number,
  { fall }: QualityPrior,
): number {
  return quality + Math.log((1 - similarity) / Math.max(1e-6, 1 - threshold)) / fall;
}
