import type { Sharp } from 'sharp';
import type { EncodedFormat } from '../core/policy/policy.js';

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
}

/** The quality of lossy AVIF, on its own scale, that looks like the other formats at theirs. */
const avifScale = 0.75;

/** How far WebP rounds, on its own scale (100 not at all): by 4 of 255 at the most. */
const roundedBy = 40;

/**
 * Encodes a picture, with the metadata that its pipeline carries. The same picture and encoding give the same bytes.
 *
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encode(
  picture: Sharp,
  { format, quality, rounded = false }: Encoding,
): Promise<Buffer> {
  switch (format) {
    case 'jpeg':
      return picture
        .flatten({ background: '#fff' })
        .jpeg({ quality: quality ?? 100, mozjpeg: true })
        .toBuffer();
    case 'webp':
      if (quality !== null) return picture.webp({ quality }).toBuffer();
      return picture
        .webp(rounded ? { nearLossless: true, quality: roundedBy } : { lossless: true })
        .toBuffer();
    case 'avif':
      return picture
        .avif(quality === null ? { lossless: true } : { quality: Math.round(quality * avifScale) })
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
