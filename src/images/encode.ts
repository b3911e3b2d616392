import sharp from 'sharp';
import type { EncodedFormat, Policy } from '../core/policy.js';
import type { Size } from '../core/size.js';
import { maxPixels } from './facts.js';

/** One way of writing a picture. */
export interface Encoding {
  readonly format: EncodedFormat;
  readonly lossless: boolean;
  /** Takes a fraction of the time, for a few per cent more bytes: enough where only ratios count. */
  readonly fast?: boolean;
}

/**
 * Encodes a picture: turned upright, reduced to `size`, in sRGB, without metadata. The same bytes,
 * size, encoding and policy give the same result.
 *
 * @param frames more than 1 keeps the animation
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encode(
  body: Buffer,
  frames: number,
  size: Size,
  { format, lossless, fast = false }: Encoding,
  policy: Policy,
): Promise<Buffer> {
  const picture = sharp(body, {
    animated: frames > 1,
    failOn: 'truncated',
    limitInputPixels: maxPixels,
  })
    .rotate()
    .resize(size.width, size.height, { fit: 'fill', kernel: 'lanczos3' });
  switch (format) {
    case 'jpeg':
      return picture
        .flatten({ background: '#fff' })
        .jpeg({ quality: policy.quality.jpeg, mozjpeg: !fast })
        .toBuffer();
    case 'webp':
      return picture
        .webp(
          lossless
            ? { lossless: true, effort: fast ? 0 : 4 }
            : { quality: policy.quality.webp, effort: fast ? 0 : 4 },
        )
        .toBuffer();
    case 'avif':
      return picture
        .avif({ quality: policy.quality.avif, lossless, effort: fast ? 0 : 4 })
        .toBuffer();
    case 'png':
      return picture.png({ compressionLevel: fast ? 2 : 9, palette: false }).toBuffer();
    case 'gif':
      return picture.gif({ effort: fast ? 1 : 7 }).toBuffer();
  }
}

/** The encoders' version: other versions give other bytes. */
export const encoderVersion = `sharp ${sharp.versions.sharp}, vips ${sharp.versions.vips}`;
