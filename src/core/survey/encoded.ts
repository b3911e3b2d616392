import type { Size } from '../base/size.js';
import type { EncodedFormat, Nature } from '../policy/policy.js';

/** One encode that was made on the way to the file that an image should be. */
export interface EncodeAttempt {
  readonly format: EncodedFormat;
  /** The encoder's quality, 1 to 100; `null` where every pixel is kept. */
  readonly quality: number | null;
  readonly bytes: number;
  /** Similarity to the ideal reduction, at most 1. */
  readonly similarity: number;
  /** Whether it was made with little effort, to find the quality: nobody is given it. */
  readonly isDraft: boolean;
}

/** How bytes follow pixels (`EncodedSteps.exponent`) where that is not measured. */
export const usualExponent = 0.8;

/** The bytes of one picture at each step from the present file to the needed one. */
export interface EncodedSteps {
  /** Bytes of the file that are not picture data; of a vector, bytes that can be removed invisibly. */
  readonly metadata: number;
  /** How the picture's bytes grow with its pixels: as `pixels ^ exponent`. */
  readonly exponent: number;
  /**
   * Bytes in the file's own format, at the need and at the quality that was found to do, without metadata. Of a
   * vector, its own text compressed.
   */
  readonly sameFormat: number;
  /** Bytes in the best format that the policy allows, at the need; of a vector, the reduced text compressed. */
  readonly best: number;
}

/** The file that an image should be, as it was really encoded. */
export interface Encoded {
  readonly contentHash: string;
  /** The largest need over all placements; `null` for a vector, which has no pixels. */
  readonly need: Size | null;
  readonly nature: Nature | 'vector';
  /** `svg` for a vector, which stays one. */
  readonly format: EncodedFormat | 'svg';
  readonly steps: EncodedSteps;
  readonly attempts: readonly EncodeAttempt[];
  /** SHA-256 of the encoded body in the workspace; `null` if there is none. */
  readonly resultHash: string | null;
  /** Why it could not be encoded, when it could not. */
  readonly problem: string | null;
}

/** The attempt whose file was chosen: the smallest in its format that is alike enough. Metadata is added to it afterwards. */
export function chosenAttempt({
  format,
  steps,
  attempts,
}: Pick<Encoded, 'format' | 'steps' | 'attempts'>): EncodeAttempt | undefined {
  return attempts
    .filter((one) => !one.isDraft && one.format === format && one.bytes <= steps.best)
    .reduce<EncodeAttempt | undefined>(
      (best, one) => (best && best.bytes >= one.bytes ? best : one),
      undefined,
    );
}
