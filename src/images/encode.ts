import type { Sharp } from 'sharp';
import type { EncodedFormat } from '../core/policy/policy.js';

/** How AVIF is made. */
export interface Way {
  /** With the least effort: it is nearly as like the picture, at a tenth to a third more bytes, in a sixth of the time. */
  readonly isDraft?: boolean;
  /** With less effort, in half the time. */
  readonly isQuick?: boolean;
  /** With eight bits for each colour of a pixel, in place of ten. */
  readonly hasEightBits?: boolean;
}

/** One way of writing a picture. */
export interface Encoding extends Way {
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
}

/** The effort of AVIF, 0 to 9. The usual 4 takes several times as long as 2, for a tenth fewer bytes. */
const avifEffort = { draft: 0, quick: 1, usual: 2 } as const;

/**
 * The quality of lossy AVIF, on its own scale, that looks like the other formats at theirs: 85 of them is 72 of its own. What is
 * hard to encode needs it to reach further up than they do. From 52 of its own scale on, two of four are the same to the
 * encoder: one of them is passed over, so that no encode is made twice.
 */
const avifQuality = (quality: number) => {
  const step = Math.round((3 / 4) * (quality ** 2 / 100));
  return Math.max(1, Math.ceil((4 / 3) * step));
};

function effortOf({ isDraft = false, isQuick = false }: Way): keyof typeof avifEffort {
  if (isDraft) return 'draft';
  return isQuick ? 'quick' : 'usual';
}

/** How far WebP rounds, on its own scale (100 not at all): by 4 of 255 at the most. */
const roundedBy = 40;

/**
 * Encodes a picture, with the metadata that its pipeline carries. The same picture and encoding give the same bytes.
 *
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encode(
  picture: Sharp,
  { format, quality, rounded = false, fullColour = false, ...way }: Encoding,
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
      if (quality === null)
        return picture.avif({ lossless: true, effort: avifEffort.usual }).toBuffer();
      // Sixteen bits are given for ten: of eight, white would become 254 of 255.
      return (way.hasEightBits ? picture : picture.toColourspace('rgb16'))
        .avif({
          ...{ quality: avifQuality(quality), chromaSubsampling: '4:4:4' },
          ...{ effort: avifEffort[effortOf(way)], bitdepth: way.hasEightBits ? 8 : 10 },
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
