import type { Credit } from './credit.js';
import type { EncodedFormat, Nature } from '../policy/policy.js';
import type { Size } from '../base/size.js';

/** Pixels of a picture; `null` for a vector, which has none. */
export interface PictureSize {
  readonly width: number | null;
  readonly height: number | null;
}

/** One file that a refit makes: an image at its need. */
export interface RefitFile {
  /** The addresses that it replaces; for pictures of a folder, paths below it. */
  readonly originals: readonly string[];
  readonly contentHash: string;
  /** Path below the refit's folder, with `/`. */
  readonly path: string;
  readonly resultHash: string;
  readonly mediaType: string;
  readonly from: PictureSize & { readonly bytes: number; readonly mediaType: string };
  readonly to: PictureSize & { readonly bytes: number; readonly format: EncodedFormat | 'svg' };
  readonly savedBytes: number;
  /** The larger file of the same picture that its pixels come from; `null` for the one that it replaces. */
  readonly pixelsFrom: string | null;
}

/** A larger file of a picture, from which the files for its smaller ones are made. */
export interface Master {
  readonly contentHash: string;
  readonly url: string;
}

/** An image file that stays as it is, and why. */
export interface KeptFile {
  readonly url: string;
  readonly reason: string;
}

/** The same picture once more: in another width, in a format that every browser reads, or both. */
export interface VariantJob {
  /** Of the original. */
  readonly contentHash: string;
  readonly path: string;
  readonly size: Size;
  readonly format: EncodedFormat;
  readonly use: 'width' | 'fallback';
}

/** A variant that has been made. */
export interface MadeVariant extends VariantJob {
  readonly resultHash: string;
  readonly bytes: number;
}

/** An image that is refitted, with all that is to be made of it. */
export interface RefitJob {
  readonly file: RefitFile;
  readonly nature: Nature | 'vector';
  readonly frames: number;
  /** The quality found to be enough at the need; `null` if every pixel is kept. */
  readonly quality: number | null;
  /** The entries that a person made about it; `null` for none. */
  readonly credit: Credit | null;
  /** Whether its main file is still to be made, because the survey encoded it in another size. */
  readonly isOpen: boolean;
  /** Whether it keeps more pixels than any element needs. */
  readonly isBeyondNeed: boolean;
  /** Whether it keeps its pixels, because elements choose it among several widths of the site. */
  readonly isInPlace: boolean;
  /** The folder of its host's files below the refit's folder: empty, or a name followed by `/`. */
  readonly folder: string;
  /** The prefix of paths below that folder, in addresses on the site. */
  readonly root: string;
  readonly variants: readonly VariantJob[];
  /** What it is made from; `null` for the image itself. */
  readonly master: Master | null;
}

/** An order of which everything has been made. */
export interface MadeJob extends Omit<RefitJob, 'variants'> {
  readonly variants: readonly MadeVariant[];
}

/** The files of a refit's folder that belong to the tool. */
export const refitPapers = {
  manifest: 'manifest.json',
  worklistCsv: 'worklist.csv',
  worklistMarkdown: 'worklist.md',
  worklistJson: 'worklist.json',
  tickets: 'tickets.md',
  snippets: 'snippets.md',
  snippetsJson: 'snippets.json',
  rewrites: 'rewrites.json',
  nginx: 'server/nginx.conf',
  apache: 'server/htaccess',
  nginxDelivery: 'server/delivery-nginx.conf',
  apacheDelivery: 'server/delivery-htaccess',
  headers: 'server/headers.txt',
  review: 'review.html',
  reviewPicture: 'review.png',
} as const;

/** Folders below a refit's own, for pictures that are no originals' successors. */
export const ownFolders = { review: 'review/', sheets: 'sheets/', server: 'server/' } as const;

/** Formats that every browser reads, whatever its age. */
const everywhere: ReadonlySet<EncodedFormat> = new Set(['jpeg', 'png', 'gif']);

export function isReadEverywhere(format: EncodedFormat): boolean {
  return everywhere.has(format);
}

/**
 * The fallback for a modern format; `null` if none is needed.
 *
 * @param inPlace whether it takes the place of the original, which keeps its format
 */
export function fallbackFor(
  nature: Nature,
  format: EncodedFormat,
  mediaType: string,
  inPlace: boolean,
): EncodedFormat | null {
  if (isReadEverywhere(format)) return null;
  const own = mediaType.replace('image/', '') as EncodedFormat;
  if (inPlace) return isReadEverywhere(own) ? own : null;
  if (nature === 'photograph') return 'jpeg';
  if (nature !== 'animation') return 'png';
  // Whoever had another kind of film has left those browsers behind already.
  return mediaType === 'image/gif' ? 'gif' : null;
}

/** The file in the format and with the pixels of the original: it can take its place; `null` where none was made. */
export function successorOf({ file, variants }: MadeJob): { path: string; bytes: number } | null {
  const { width, mediaType } = file.from;
  if (file.mediaType === mediaType && file.to.width === width)
    return { path: file.path, bytes: file.to.bytes };
  return (
    variants.find(({ format, size }) => `image/${format}` === mediaType && size.width === width) ??
    null
  );
}

/** The fewest bytes that were made of all the pixels of the original; its own where nothing was smaller. */
export function leastBytes({ file, variants }: MadeJob): number {
  const { width, bytes } = file.from;
  const main = file.to.width === width ? [file.to.bytes] : [];
  const same = variants.filter(({ size }) => size.width === width);
  return Math.min(bytes, ...main, ...same.map((variant) => variant.bytes));
}

/** All widths of which files are to be made. */
export function widthsPlanned({
  file,
  variants,
}: {
  readonly file: Pick<RefitFile, 'to'>;
  readonly variants: readonly VariantJob[];
}): number[] {
  return [file.to.width ?? 0, ...variants.map(({ size }) => size.width)];
}

/** All widths in which a made order is offered, the narrowest first. */
export function widthsOf({ file, variants }: Pick<MadeJob, 'file' | 'variants'>): number[] {
  const widths = [file.to.width, ...variants.map(({ size }) => size.width)];
  return [...new Set(widths.flatMap((width) => width ?? []))].sort((a, b) => a - b);
}
