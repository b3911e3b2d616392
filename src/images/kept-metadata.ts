import { filledIn, isEmpty, noCredit, xmpOf } from '../core/refit/credit.js';
import type { Credit } from '../core/refit/credit.js';
import type { MetadataPolicy } from '../core/policy/policy.js';
import { readCredit } from './credit.js';
import { encode } from './encode.js';
import type { Encoding } from './encode.js';
import type { Reduced } from './picture.js';

/** The metadata of a picture. */
export interface Carried {
  /** All metadata of its file: EXIF, IPTC, XMP. */
  readonly everything: boolean;
  /** What it shows and whose it is, as XMP. */
  readonly credit: Credit | null;
}

/**
 * What is to go along of what a file says, by policy, and of what somebody has filled in; `null` for nothing.
 *
 * @param given what was filled in, over what stands in the file
 */
export function carriedOf(
  policy: MetadataPolicy,
  body: Buffer,
  given: Credit | null = null,
): Carried | null {
  if (policy === 'drop' && !given) return null;
  const everything = policy === 'keep';
  if (everything && !given) return { everything, credit: null };
  const own = policy === 'drop' ? noCredit : readCredit(body);
  const credit = given ? filledIn(own, given) : own;
  return everything || !isEmpty(credit) ? { everything, credit } : null;
}

/** Encodes a picture with its metadata. GIF carries none. */
export function encodeWith(
  picture: Reduced,
  encoding: Encoding,
  { everything, credit }: Carried,
): Promise<Buffer> {
  const pipeline = everything ? picture.whole() : picture.pipeline();
  return encode(credit ? pipeline.withXmp(xmpOf(credit)) : pipeline, encoding);
}
