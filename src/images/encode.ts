import type { Sharp } from 'sharp';
import type { EncodedFormat } from '../core/policy/policy.js';
import type { Size } from '../core/base/size.js';

/** One way of writing a picture. */
export interface Encoding {
  readonly format: EncodedFormat;
  /** 1 to 100; `null` keeps every pixel as it is. */
  readonly quality: number | null;
  /**
   * Of a picture that keeps its pixels: lets colours be off by less than can be seen. PNG names at most 256 colours once,
   * and then each pixel by its number; WebP rounds them so that they pack better.
   */
  readonly rounded?: boolean;
  /**
   * Of JPEG: keeps the colour of every pixel (4:4:4), in place of one for four (4:2:0). AVIF always does; WebP cannot, and
   * weighs with care which colour four pixels share, which takes three times as long.
   */
  readonly fullColour?: boolean;
  /** Of AVIF: made with the least effort. It is as like the picture, at a tenth to a third more bytes, in a sixth of the time. */
  readonly isDraft?: boolean;
}

/**
 * The effort of AVIF, 0 to 9: at 2 it takes about as long as WebP with its chroma halved with care, at the usual 4 seven times
 * as long for a tenth fewer bytes. At 1 a photograph is a few per cent larger, and a smooth drawing by half, in half the time:
 * that is for pictures that would otherwise hold up all others.
 */
const avifEffort = ({ width, height }: Size) => (width * height > largeArea ? 1 : 2);
const largeArea = 3_000_000;

/**
 * The quality of lossy AVIF, on its own scale, that looks like the other formats at theirs: 85 of them is 72 of its own. What is
 * hard to encode needs it to reach further up than they do.
 */
const avifQuality = (quality: number) => Math.max(1, Math.round(quality ** 2 / 100));

/** How far WebP rounds, on its own scale (100 not at all): by 4 of 255 at the most. */
const roundedBy = 40;

/**
 * Encodes a picture, with the metadata that its pipeline carries. The same picture and encoding give the same bytes.
 *
 * @param size pixels of one frame
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encode(
  picture: Sharp,
  size: Size,
  { format, quality, rounded = false, fullColour = false, isDraft = false }: Encoding,
): Promise<Buffer> {
  switch (format) {
    case 'jpeg':
      return picture
        .flatten({ background: '#fff' })
        .jpeg({
          ...{ quality: quality ?? 100, mozjpeg: true },
          chromaSubsampling: fullColour ? '4:4:4' : '4:2:0',
        })
        .toBuffer();
    case 'webp':
      if (quality !== null) return picture.webp({ quality, smartSubsample: fullColour }).toBuffer();
      return picture
        .webp(rounded ? { nearLossless: true, quality: roundedBy } : { lossless: true })
        .toBuffer();
    case 'avif':
      return picture
        .avif({
          effort: isDraft ? 0 : avifEffort(size),
          ...(quality === null
            ? { lossless: true }
            : { quality: avifQuality(quality), chromaSubsampling: '4:4:4' }),
        })
        .toBuffer();
    case 'png':
      return picture
        .png(
          rounded
            ? { compressionLevel: 9, palette: true, colours: 256, dither: 0, effort: 10 }
            : { compressionLevel: 9, palette: false },
        )
        .toBuffer();
    case 'gif':
      return picture.gif({ effort: 7 }).toBuffer();
  }
}

/** Formats that keep every pixel, or at least do not blur: there is no quality to search for. */
export function isLossless(format: EncodedFormat): boolean {
  return format === 'png' || format === 'gif';
}
