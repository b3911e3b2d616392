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
const headLength = 262_144;

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
  if (isGzip(body)) return unreadable(declaredType, 'it is compressed, and not said to be');
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
    // What the codec knows better than its first bytes told.
    if (mediaType === 'image/svg')
      return { ...common, mediaType: 'image/svg+xml', intrinsic: null, problem: null };
    const track =
      mediaType === 'image/avif'
        ? framesOfAvif(body)
        : mediaType === 'image/png'
          ? framesOfPng(body)
          : 1;
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
  if ((mediaType === 'image/avif' || mediaType === 'image/png') && frames > 1) {
    const name = mediaType === 'image/avif' ? 'AVIF' : 'PNG';
    return `it is an animated ${name} of ${frames} frames, which cannot be decoded`;
  }
  return null;
}

function typeOf({ format, compression }: Metadata): string {
  if (format === 'heif') return compression === 'av1' ? 'image/avif' : 'image/heic';
  return mediaTypes[format] ?? `image/${format}`;
}

/** A drawing may be, and the codec would unpack and draw it. */
function isGzip(body: Buffer): boolean {
  return body[0] === 0x1f && body[1] === 0x8b;
}

/** What may stand before the first element of a document: declarations, comments, a document type with its entities. */
const prolog =
  /^(?:\s+|<\?[^]*?\?>|<!--[^]*?-->|<!doctype\s[^[>]*(?:\[(?:[^\]"'<]|"[^"]*"|'[^']*'|<!--(?:(?!-->)[^])*-->|<(?!!--)[^>]*>)*\]\s*)?>)/i;

/** Recognises the text formats that turn up where images are expected. */
function sniffText(body: Buffer): 'image/svg+xml' | 'text/html' | undefined {
  let rest = body
    .subarray(0, headLength)
    .toString('utf8')
    .replace(/^\uFEFF/, '');
  if (!/^\s*</.test(rest)) return undefined;
  if (/^\s*<!doctype\s+html/i.test(rest)) return 'text/html';
  for (let found = prolog.exec(rest); found; found = prolog.exec(rest))
    rest = rest.slice(found[0].length);
  if (/^<(?:[\w.-]+:)?svg[\s>/]/i.test(rest)) return 'image/svg+xml';
  return /^<(?:html|head|body|title)\b/i.test(rest) ? 'text/html' : undefined;
}

/** The frames of an animated PNG, of which the codec sees only the first; 1 for a still one. */
function framesOfPng(body: Buffer): number {
  // An animation says so in front of its pixels (PNG, third edition, section 11.3.3.2).
  const signature = 8;
  for (let at = signature; at + 12 <= body.length; at += 12 + body.readUInt32BE(at)) {
    const name = body.toString('latin1', at + 4, at + 8);
    if (name === 'IDAT') return 1;
    if (name === 'acTL' && at + 12 <= body.length) return Math.max(1, body.readUInt32BE(at + 8));
  }
  return 1;
}

/** A message of the codec without its prefix and line breaks. */
export function tidy(message: string): string {
  return message
    .replace(/^(?:Input buffer|Input file) /, '')
    .replace(/^\w+: /, '')
    .trim();
}
