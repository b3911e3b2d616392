import sharp from 'sharp';
import { fingerprintSide } from '../core/survey/fingerprint.js';
import type { Fingerprint } from '../core/survey/fingerprint.js';
import { maxPixels } from './facts.js';

/**
 * Shrinks a picture (of an animation the first frame) to its fingerprint, upright and over mid-grey.
 *
 * @throws Error when the bytes cannot be decoded.
 */
export async function fingerprintOf(body: Buffer): Promise<Fingerprint> {
  const { data } = await sharp(body, { limitInputPixels: maxPixels })
    .rotate()
    .flatten({ background: '#808080' })
    .resize(fingerprintSide, fingerprintSide, { fit: 'fill' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return data;
}
