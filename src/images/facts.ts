import sharp from 'sharp';
import type { Metadata } from 'sharp';
import { messageOf } from '../core/base/errors.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { area } from '../core/base/size.js';
import { asStillAvif, framesOfAvif } from './avif-frames.js';
import { contentHashOf } from './hash.js';

// Hardly an image is read twice: what the codec would remember of them is memory for nothing.
sharp.cache(false);

/** Images with more pixels than this are listed but not decoded: 100 megapixels. */
export const maxPixels = 100_000_000;

/** The first bytes are enough to tell what a text is. */
const headLength = 16_384;

const mediaTypes: Readonly<Record<string, string>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  tiff: 'image/tiff',
  jxl: 'image/jxl',
};

/**
 * Reads what there is to know of an image file from its own bytes: never throws, and never believes
 * what the page or the server said of it.
 *
 * @param body the bytes, content encoding undone
 * @param declaredType media type that the server gave; used in messages only
 */
export async function readImageFacts(body: Buffer, declaredType: string): Promise<ImageFile> {
  const common = { contentHash: contentHashOf(body), bytes: body.length, frames: 1 };
  const unreadable = (mediaType: string, problem: string): ImageFile => ({
    ...common,
    mediaType,
    intrinsic: null,
    problem,
  });
  if (body.length === 0) return unreadable(declaredType, 'the file is empty');
  const text = sniffText(body);
  if (text === 'image/svg+xml')
    return { ...common, mediaType: text, intrinsic: null, problem: null };
  if (text === 'text/html') return unreadable(text, 'it is HTML, not an image');
  try {
    // One that is too large to decode may still be measured.
    const found = await sharp(asStillAvif(body), {
      limitInputPixels: false,
      animated: true,
    }).metadata();
    const mediaType = typeOf(found);
    const height = found.pageHeight ?? found.height;
    const turned = (found.orientation ?? 1) >= 5;
    const intrinsic = turned
      ? { width: height, height: found.width }
      : { width: found.width, height };
    const track = mediaType === 'image/avif' ? framesOfAvif(body) : 1;
    const frames = Math.max(track, found.pages ?? 1);
    const problem = reasonNotToDecode(mediaType, area(intrinsic) * frames, frames);
    return { ...common, mediaType, intrinsic, frames, problem };
  } catch (error) {
    return unreadable(declaredType, `it cannot be read as an image (${tidy(messageOf(error))})`);
  }
}

function reasonNotToDecode(mediaType: string, pixels: number, frames: number): string | null {
  if (pixels > maxPixels)
    return `it has ${Math.round(pixels / 1e6)} megapixels; at most this many are decoded (${maxPixels / 1e6})`;
  // Of which the codec sees only the first: it would be taken for a still picture.
  if (mediaType === 'image/avif' && frames > 1)
    return `it is an animated AVIF of ${frames} frames, which cannot be decoded`;
  return null;
}

function typeOf({ format, compression }: Metadata): string {
  if (format === 'heif') return compression === 'av1' ? 'image/avif' : 'image/heic';
  return mediaTypes[format] ?? `image/${format}`;
}

/** Recognises the text formats that turn up where images are expected. */
function sniffText(body: Buffer): 'image/svg+xml' | 'text/html' | undefined {
  const head = body
    .subarray(0, headLength)
    .toString('utf8')
    .replace(/^\uFEFF/, '')
    .replace(/<!--[^]*?-->/g, '')
    .trimStart();
  if (/^(?:<\?xml[^>]*>\s*)?(?:<!doctype\s+svg[^>]*>\s*)?<svg[\s>]/i.test(head))
    return 'image/svg+xml';
  return /^<(?:!doctype\s+html|html|head|body|title)\b/i.test(head) ? 'text/html' : undefined;
}

/** A message of the codec without its prefix and line breaks. */
export function tidy(message: string): string {
  return message
    .replace(/^(?:Input buffer|Input file) /, '')
    .replace(/^\w+: /, '')
    .trim();
}
