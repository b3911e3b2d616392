/** Why bytes were sent that were not needed. The causes of one file add up to its whole waste. */
export const causes = ['neverShown', 'duplicate', 'pixels', 'quality', 'format'] as const;
export type Cause = (typeof causes)[number];
export type WasteByCause = Readonly<Record<Cause, number>>;

/** What one picture costs in the steps from the file that is there to the file that is needed. */
export interface EncodedSteps {
  /**
   * Bytes at the need for each byte at the intrinsic size, both encoded in the same format with the
   * same settings; above 0, at most 1.
   */
  readonly pixelRatio: number;
  /** The file's own format, at the need and at the policy's quality, without metadata; bytes. */
  readonly sameFormat: number;
  /** The best format that the policy allows, at the need; bytes. */
  readonly best: number;
}

export interface Waste {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly causes: WasteByCause;
}

/** All causes at nothing. */
export function noWaste(): Record<Cause, number> {
  return { neverShown: 0, duplicate: 0, pixels: 0, quality: 0, format: 0 };
}

/**
 * Splits what was sent for one image file into what was needed and what was wasted, by cause.
 *
 * The split walks from the file that was sent to the file that is needed and books each step's gain
 * under its cause: first the pixels go (the file as it is, less the share of its bytes that real
 * encodes say its extra pixels take), then quality and metadata, then the format. A step that would
 * make the file larger gains nothing, so the causes can never be negative and always add up to
 * `sentBytes - neededBytes`. Both ends of the walk are real files; only its middle is a model.
 *
 * @param bytes size of the file's body
 * @param addresses under how many addresses the same content was sent
 * @param shown whether any placement shows it
 * @param steps real encodes, or `undefined` when none could be made (then nothing but `neverShown`
 *   and `duplicate` is known)
 */
export function splitWaste(
  bytes: number,
  addresses: number,
  shown: boolean,
  steps: EncodedSteps | undefined,
): Waste {
  const sentBytes = bytes * addresses;
  const split = noWaste();
  if (!shown) {
    split.neverShown = sentBytes;
    return { sentBytes, neededBytes: 0, wasteBytes: sentBytes, causes: split };
  }
  split.duplicate = bytes * (addresses - 1);
  let left = bytes;
  const book = (cause: Cause, step: number) => {
    const after = Math.min(left, step);
    split[cause] = left - after;
    left = after;
  };
  if (steps) {
    // A step never goes below the end of the walk, however small one encode came out.
    book('pixels', Math.max(Math.round(bytes * steps.pixelRatio), steps.best));
    book('quality', Math.max(steps.sameFormat, steps.best));
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
