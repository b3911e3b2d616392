import type { Credit } from '../core/refit/credit.js';
import type { EncodedFormat, Nature, Policy } from '../core/policy/policy.js';
import type { Size } from '../core/base/size.js';
import { carriedOf, encodeWith } from './kept-metadata.js';
import { isLossless } from './encode.js';
import { encodeExactly } from './encoded-picture.js';
import type { EncodedPicture } from './encoded-picture.js';
import { best } from './format-search.js';
import { searchFormat } from './lossy-search.js';
import { reduce } from './picture.js';
import type { Reduced } from './picture.js';

/** A further variant to make of a picture. */
export interface VariantWish {
  readonly size: Size;
  readonly format: EncodedFormat;
  /** The quality to try first. */
  readonly quality: number | null;
}

/** A picture of which several variants are made: it is decoded once for all of them. */
export interface VariantSource {
  readonly body: Buffer;
  readonly frames: number;
  readonly nature: Nature;
  /** The largest of the variants. */
  readonly size: Size;
  /** The entries that a person made about it; `null` for none. */
  readonly credit: Credit | null;
}

/** A variant, and every encode attempted on the way to it. */
export interface VariantMade {
  readonly made: EncodedPicture;
  readonly attempts: readonly EncodedPicture[];
}

/**
 * Opens a picture to make variants of it. What is lossy begins at the quality that did at the need, and is searched from
 * there for the lowest at which it is as much like the ideal reduction as the policy asks for.
 *
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function openVariants(
  { body, frames, nature, size, credit }: VariantSource,
  policy: Pick<Policy, 'similarity' | 'quality' | 'metadata'>,
): Promise<(wish: VariantWish) => Promise<VariantMade>> {
  const largest = await reduce(body, frames, size);
  const carried = carriedOf(policy.metadata, body, credit);
  // The same size is wanted in several formats.
  const reduced = new Map<number, Promise<Reduced>>([[size.width, Promise.resolve(largest)]]);
  const inSize = (wanted: Size) => {
    const picture = reduced.get(wanted.width) ?? largest.smaller(wanted);
    reduced.set(wanted.width, picture);
    return picture;
  };
  return async ({ size: wanted, format, quality }) => {
    const picture = await inSize(wanted);
    const attempts: EncodedPicture[] = [];
    const made = await alikeEnough(format, quality);
    if (carried === null) return { made, attempts };
    const result = await encodeWith(picture, made, carried);
    return { made: { ...made, body: result, bytes: result.length }, attempts };

    async function alikeEnough(
      format: EncodedFormat,
      first: number | null,
    ): Promise<EncodedPicture> {
      if (first === null || isLossless(format)) {
        attempts.push(await encodeExactly(picture, frames, format, nature === 'drawing'));
        return attempts[0]!;
      }
      const search = { format, policy, first: () => first };
      attempts.push(...(await searchFormat(picture, frames, search)));
      return best(attempts, policy.similarity);
    }
  };
}
