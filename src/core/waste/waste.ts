import type { EncodedSteps } from '../survey/encoded.js';

/** Why bytes were sent that were not needed. The causes of one file add up to its whole waste. */
export const causes = [
  'neverShown',
  'duplicate',
  'metadata',
  'pixels',
  'quality',
  'format',
  'wire',
] as const;
export type Cause = (typeof causes)[number];
export type WasteByCause = Readonly<Record<Cause, number>>;

/** The same steps, as far as they are from one file in one slot. */
export interface WasteSteps extends Omit<EncodedSteps, 'exponent'> {
  /** Bytes at the need for each byte at the intrinsic size; above 0, at most 1. */
  readonly pixelRatio: number;
  /** A text (a vector): it has no pixels, and is compressed on the wire. */
  readonly text: boolean;
}

export interface Waste {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly causes: WasteByCause;
}

/** All causes at nothing. */
export function noWaste(): Record<Cause, number> {
  return {
    neverShown: 0,
    duplicate: 0,
    metadata: 0,
    pixels: 0,
    quality: 0,
    format: 0,
    wire: 0,
  };
}

/**
 * Steps to a smaller need than the one that was encoded: bytes follow the pixels by the exponent that two real
 * encodes have.
 *
 * @param intrinsic pixels of the file
 * @param encoded pixels at which it was encoded
 * @param need pixels that are enough here, at most `encoded`
 */
export function stepsAt(
  { metadata, exponent, sameFormat, best }: EncodedSteps,
  intrinsic: number,
  encoded: number,
  need: number,
): WasteSteps {
  const less = (need / encoded) ** exponent;
  return {
    metadata,
    pixelRatio: (need / intrinsic) ** exponent,
    sameFormat: Math.round(sameFormat * less),
    best: Math.round(best * less),
    text: false,
  };
}

/**
 * Splits what was sent for one image file into what was needed and what was wasted, by cause.
 *
 * The split walks from the file that was sent to the file that is needed and books each step's gain
 * under its cause: first its metadata go, then the pixels (the share of its bytes that its extra pixels take, by the
 * exponent of real encodes), then quality, then the format. A step that would make the file larger gains nothing, so
 * the causes can never be negative and always add up to `sentBytes - neededBytes`.
 *
 * @param bytes size of the file's body
 * @param times how often the same content was sent
 * @param shown whether any placement shows it
 * @param steps real encodes, or `undefined` where the file is right as it is
 */
export function splitWaste(
  bytes: number,
  times: number,
  shown: boolean,
  steps: WasteSteps | undefined,
): Waste {
  const sentBytes = bytes * times;
  const split = noWaste();
  if (!shown) {
    split.neverShown = sentBytes;
    return { sentBytes, neededBytes: 0, wasteBytes: sentBytes, causes: split };
  }
  split.duplicate = bytes * (times - 1);
  let left = bytes;
  // A step never goes below the end of the walk, however small one encode came out.
  const book = (cause: Cause, step: number) => {
    const after = Math.min(left, Math.max(step, steps!.best));
    split[cause] = left - after;
    left = after;
  };
  if (steps) book('metadata', bytes - steps.metadata);
  if (steps?.text) book('wire', steps.best);
  else if (steps) {
    book('pixels', Math.round(left * steps.pixelRatio));
    book('quality', steps.sameFormat);
    book('format', steps.best);
  }
  return { sentBytes, neededBytes: left, wasteBytes: sentBytes - left, causes: split };
}

/** The sum of several splits, cause by cause. */
export function addCauses(splits: readonly WasteByCause[]): WasteByCause {
  const sum = noWaste();
  for (const split of splits) for (const cause of causes) sum[cause] += split[cause];
  return sum;
}
