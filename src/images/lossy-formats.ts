import type { QualityPrior } from '../core/pixels/quality-search.js';
import type { EncodedFormat } from '../core/policy/policy.js';

/** What is known of a format before a picture is encoded in it. */
export interface LossyFormat extends QualityPrior {
  /** The quality from which on all colours at a lower quality may be smaller; infinite in a format that has them always. */
  readonly fullColourFrom: number;
  /** Whether an encode takes so long that a draft is to tell where the search begins. */
  readonly isSlow: boolean;
}

/**
 * Where the search begins in each format, and how steep it is: medians over photographs of templates and wallpapers at the
 * default similarity (bench/priors.mjs).
 */
const lossyFormats: Readonly<Partial<Record<EncodedFormat, LossyFormat>>> = {
  avif: { first: 84, fall: 0.075, fullColourFrom: Infinity, isSlow: true },
  webp: { first: 88, fall: 0.069, fullColourFrom: 96, isSlow: false },
  jpeg: { first: 84, fall: 0.067, fullColourFrom: 88, isSlow: false },
};

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
