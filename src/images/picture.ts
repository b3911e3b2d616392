import sharp from 'sharp';
import type { Sharp } from 'sharp';
import type { Luma } from '../core/similarity.js';
import type { Size } from '../core/size.js';
import { maxPixels } from './facts.js';

/** A picture reduced to the size that it is needed in, decoded once and encoded in several ways. */
export interface Reduced {
  /** A fresh pipeline with the picture in it. */
  readonly pipeline: () => Sharp;
  /** Pixels of one frame. */
  readonly size: Size;
  readonly luma: Luma;
}

/**
 * Decodes a picture, turns it upright, reduces it to `size` (Lanczos), in sRGB.
 *
 * @param frames more than 1 keeps the animation
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function reduce(body: Buffer, frames: number, size: Size): Promise<Reduced> {
  const resized = () =>
    sharp(body, { animated: frames > 1, failOn: 'truncated', limitInputPixels: maxPixels })
      .rotate()
      .resize(size.width, size.height, { fit: 'fill', kernel: 'lanczos3' });
  const raw = await resized().raw().toBuffer({ resolveWithObject: true });
  const { width, height, channels } = raw.info;
  // What has delays and loops cannot be taken up again from its pixels.
  const still = () => sharp(raw.data, { raw: { width, height, channels } });
  return { pipeline: frames > 1 ? resized : still, size, luma: lumaOf(raw.data, raw.info) };
}

/** A smaller one of a picture that is reduced already. */
export async function reduceFurther({ pipeline }: Reduced, size: Size): Promise<Reduced> {
  const raw = await pipeline()
    .resize(size.width, size.height, { fit: 'fill', kernel: 'lanczos3' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = raw.info;
  const still = () => sharp(raw.data, { raw: { width, height, channels } });
  return { pipeline: still, size, luma: lumaOf(raw.data, raw.info) };
}

/** The luma of an encoded picture; the frames of an animation one below the other. */
export async function readLuma(body: Buffer, frames: number): Promise<Luma> {
  const raw = await sharp(body, { animated: frames > 1 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return lumaOf(raw.data, raw.info);
}

/** What shows through where a picture is transparent: neither of the ends, so that both differ from it. */
const behind = 128;

/**
 * Luma by the weights of ITU-R BT.601, as lossy formats carry it.
 *
 * @param pixels grey, grey and alpha, RGB, or RGB and alpha, a byte each
 */
function lumaOf(
  pixels: Buffer,
  { width, height, channels }: Size & { readonly channels: number },
): Luma {
  const values = new Uint8Array(width * height);
  const alpha = channels === 2 || channels === 4 ? channels - 1 : -1;
  for (let at = 0, from = 0; at < values.length; at++, from += channels) {
    // 0.299, 0.587 and 0.114, in 256ths: whole numbers are several times as fast.
    const y =
      channels < 3
        ? pixels[from]!
        : (pixels[from]! * 77 + pixels[from + 1]! * 150 + pixels[from + 2]! * 29 + 128) >> 8;
    if (alpha < 0) {
      values[at] = y;
      continue;
    }
    const opaque = pixels[from + alpha]!;
    values[at] = (y * opaque + behind * (255 - opaque)) / 255;
  }
  return { width, height, values };
}
