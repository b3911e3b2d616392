import sharp from 'sharp';
import type { OutputInfo, Raw, Sharp } from 'sharp';
import { coloursOf, lumaOf } from '../core/pixels/colours.js';
import type { Colours, RawPixels } from '../core/pixels/colours.js';
import type { Luma } from '../core/pixels/luma.js';
import type { Size } from '../core/base/size.js';
import { needsItsProfile } from './colours.js';
import { maxPixels } from './facts.js';
import { sampleOf } from './sample.js';
import type { Tiles } from './sample.js';

/** A picture reduced to the size that it is needed in, decoded once and encoded in several ways. */
export interface Reduced {
  /** A fresh pipeline with the picture in it. */
  readonly pipeline: () => Sharp;
  /** The same, with all that its file says besides: EXIF, IPTC, XMP. */
  readonly whole: () => Sharp;
  /** The same in sRGB, its first frame alone. */
  readonly still: () => Sharp;
  /** Pixels of one frame. */
  readonly size: Size;
  readonly colours: Colours;
  /** Tiles of it, to try encodes on; `null` where the whole is small, or cannot be taken up again from its pixels. */
  readonly sample: (most: Tiles) => Promise<Reduced | null>;
  /** The same picture in a smaller size. */
  readonly smaller: (size: Size) => Promise<Reduced>;
}

/** What is reduced of bytes that somebody still holds, by frames and size. */
const reduced = new WeakMap<Buffer, Map<string, Promise<Reduced>>>();

/**
 * Decodes a picture, turns it upright, reduces it to `size` (Lanczos), in sRGB; in its own colour space, with its
 * profile, where sRGB does not have its colours. The same bytes are reduced to the same size once, as long as they are
 * held.
 *
 * @param frames more than 1 keeps the animation
 * @throws Error when the bytes cannot be decoded to the end.
 */
export function reduce(body: Buffer, frames: number, size: Size): Promise<Reduced> {
  const known = reduced.get(body) ?? new Map<string, Promise<Reduced>>();
  reduced.set(body, known);
  const key = [frames, size.width, size.height].join();
  const picture = known.get(key) ?? reduceAnew(body, frames, size);
  known.set(key, picture);
  return picture;
}

async function reduceAnew(body: Buffer, frames: number, size: Size): Promise<Reduced> {
  const moves = frames > 1;
  const ownSpace = !moves && (await needsItsProfile(body));
  const opened = () =>
    shrunk(
      sharp(body, { animated: moves, failOn: 'truncated', limitInputPixels: maxPixels }).rotate(),
      size,
    );
  const resized = ownSpace ? () => opened().keepIccProfile() : opened;
  const whole = () =>
    ownSpace
      ? opened().keepMetadata()
      : opened().keepMetadata().withIccProfile('srgb', { attach: false });
  // What has delays and loops, or a profile, cannot be taken up again from its pixels.
  if (!moves && !ownSpace) return fromPixels(resized(), size, whole);
  const { data, info } = await resized().raw().toBuffer({ resolveWithObject: true });
  return {
    ...{ pipeline: resized, whole, size, colours: coloursOf(pixelsOf(data, info)) },
    still: () => shrunk(sharp(body).rotate(), size),
    sample: () => Promise.resolve(null),
    smaller: (less) => reduce(body, frames, less),
  };
}

async function fromPixels(picture: Sharp, size: Size, whole: () => Sharp): Promise<Reduced> {
  const { data, info } = await picture.raw().toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const pipeline = () => sharp(data, { raw: { width, height, channels } });
  const pixels = pixelsOf(data, info);
  return {
    ...{ pipeline, whole, still: pipeline, size, colours: coloursOf(pixels) },
    sample: (most) => sampled(pixels, most),
    smaller: (less) => fromPixels(shrunk(pipeline(), less), less, () => shrunk(whole(), less)),
  };
}

async function sampled(pixels: RawPixels, most: Tiles): Promise<Reduced | null> {
  const sample = sampleOf(pixels, most);
  if (!sample) return null;
  const { bytes, ...raw } = sample;
  const pipeline = () => sharp(bytes, { raw: raw as Raw });
  return fromPixels(pipeline(), raw, pipeline);
}

function shrunk(picture: Sharp, { width, height }: Size): Sharp {
  return picture.resize(width, height, { fit: 'fill', kernel: 'lanczos3' });
}

/** What is compared of an encoded picture; the frames of an animation one below the other. */
export async function readColours(body: Buffer, frames: number): Promise<Colours> {
  return coloursOf(await readPixels(body, frames));
}

/** The luma of an encoded picture; the frames of an animation one below the other. */
export async function readLuma(body: Buffer, frames: number): Promise<Luma> {
  return lumaOf(await readPixels(body, frames));
}

async function readPixels(body: Buffer, frames: number): Promise<RawPixels> {
  // Both sides are compared in the colour space that they are in.
  const { data, info } = await sharp(body, { animated: frames > 1, ignoreIcc: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return pixelsOf(data, info);
}

function pixelsOf(data: Buffer, { width, height, channels }: OutputInfo): RawPixels {
  // A buffer is slower to read than the bytes that it stands for.
  const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return { width, height, channels, bytes };
}
