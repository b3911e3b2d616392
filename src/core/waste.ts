/** Why bytes were sent that were not needed. The causes of one file add up to its whole waste. */
export const causes = ['neverShown', 'duplicate', 'quality', 'pixels', 'format'] as const;
export type Cause = (typeof causes)[number];
export type WasteByCause = Readonly<Record<Cause, number>>;

/** What one picture costs in the steps from the file that is there to the file that is needed. */
export interface EncodedSteps {
  /** The same format and pixels, encoded at the policy's quality and without metadata; bytes. */
  readonly sameFormatAtIntrinsic: number;
  /** The same format, at the need; bytes. */
  readonly sameFormatAtNeed: number;
  /** The best format the policy allows, at the need; bytes. */
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
  return { neverShown: 0, duplicate: 0, quality: 0, pixels: 0, format: 0 };
}

/**
 * Splits what was sent for one image file into what was needed and what was wasted, by cause.
 *
 * The split walks from the file that was sent to the file that is needed and books each step's gain
 * under its cause. A step that would make the file larger gains nothing, so the causes can never be
 * negative and always add up to `sentBytes - neededBytes`.
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
    // A result that is not smaller than the file is not worth having: then the file stays.
    book('quality', Math.max(steps.sameFormatAtIntrinsic, steps.best));
    book('pixels', Math.max(steps.sameFormatAtNeed, steps.best));
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
