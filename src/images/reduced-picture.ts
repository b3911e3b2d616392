import type { Size } from '../core/base/size.js';
import { reduce } from './picture.js';

/** Nothing of the picture is lost that anybody sees. */
const quality = 92;

/**
 * A picture at another size, to be looked at beside its encode, as WebP.
 *
 * @throws Error when it cannot be decoded.
 */
export async function reducedPicture(body: Buffer, size: Size): Promise<Buffer> {
  const ideal = await reduce(body, 1, size);
  return ideal.still().webp({ quality, effort: 2 }).toBuffer();
}
