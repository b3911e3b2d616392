import type { EncodedFormat, Policy } from '../core/policy.js';
import { similarity } from '../core/similarity.js';
import type { Size } from '../core/size.js';
import type { Trial } from '../core/survey.js';
import { encode } from './encode.js';
import { readLuma, reduceFurther } from './picture.js';
import type { Reduced } from './picture.js';

/** A picture in one size and format. */
export interface Variant extends Trial {
  readonly body: Buffer;
}

/** Steps by which the quality is raised where it does not do. */
const step = 6;

/**
 * Encodes a picture once more in a smaller size. The quality that did at its need is tried first, and raised as long
 * as what comes of it is less like the ideal reduction than the policy asks for.
 *
 * @param picture at its need
 * @param quality that did there; `null` keeps every pixel
 */
export async function encodeVariant(
  picture: Reduced,
  size: Size,
  format: EncodedFormat,
  quality: number | null,
  policy: Pick<Policy, 'similarity' | 'quality'>,
): Promise<Variant> {
  const same = size.width === picture.size.width && size.height === picture.size.height;
  const reduced = same ? picture : await reduceFurther(picture, size);
  for (let tried = quality; ; tried = Math.min(policy.quality.most, tried + step)) {
    const body = await encode(reduced.pipeline(), { format, quality: tried });
    const trial = { format, quality: tried, bytes: body.length, body };
    if (tried === null) return { ...trial, similarity: 1 };
    const alike = similarity(reduced.luma, await readLuma(body, 1));
    if (alike >= policy.similarity || tried >= policy.quality.most)
      return { ...trial, similarity: alike };
  }
}
