import { hostOf, relativePathOf, splitExtension } from './address.js';
import { isVector } from './image-file.js';
import { pixelsAt } from './need.js';
import type { EncodedFormat, Nature } from './policy.js';
import type { RankedImage } from './ranked-image.js';
import type { Size } from './size.js';
import type { Encoded } from './survey.js';

/** One file that a refit makes: an image at its need. */
export interface RefitFile {
  /** The addresses that it takes the place of. */
  readonly originals: readonly string[];
  readonly contentHash: string;
  /** Path below the refit's folder, with `/`. */
  readonly path: string;
  readonly resultHash: string;
  readonly mediaType: string;
  readonly from: Size & { readonly bytes: number; readonly mediaType: string };
  readonly to: Size & { readonly bytes: number; readonly format: EncodedFormat };
  readonly savedBytes: number;
}

/** An image file that stays as it is, and why. */
export interface KeptFile {
  readonly url: string;
  readonly reason: string;
}

/** The same picture once more: in another width, in a format that every browser reads, or both. */
export interface VariantOrder {
  /** Of the original. */
  readonly contentHash: string;
  readonly path: string;
  readonly size: Size;
  readonly format: EncodedFormat;
  readonly use: 'width' | 'fallback';
}

/** A variant that has been made. */
export interface MadeVariant extends VariantOrder {
  readonly resultHash: string;
  readonly bytes: number;
}

/** An image that is refitted, with all that is to be made of it. */
export interface RefitOrder {
  readonly image: RankedImage;
  readonly file: RefitFile;
  readonly encoded: Encoded;
  /** Where the files of its host lie below the refit's folder: empty, or a name with `/` behind it. */
  readonly folder: string;
  /** What stands before paths below that folder, in addresses on the site. */
  readonly root: string;
  readonly variants: readonly VariantOrder[];
}

export interface RefitPlan {
  readonly orders: readonly RefitOrder[];
  readonly kept: readonly KeptFile[];
}

/** What a refit's folder keeps for itself. */
export const papers = {
  manifest: 'manifest.json',
  worklistCsv: 'worklist.csv',
  worklistMarkdown: 'worklist.md',
  snippets: 'snippets.md',
  rewrites: 'rewrites.json',
} as const;

/** A width that saves less than this part of a larger one is not worth a file. */
const worthAFile = 0.9;

/**
 * Which files are to be made, under which names, and which images stay as they are.
 *
 * @param widthsOf the widths that the slot families of a file are to be offered in, by its place in the list of files
 */
export function planRefit(
  images: readonly RankedImage[],
  widthsOf: (place: number) => readonly number[],
): RefitPlan {
  const orders: RefitOrder[] = [];
  const kept: KeptFile[] = [];
  const names = new Names();
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const hosts = own.flatMap(({ urls }) => urls.filter(isFetched).map(hostOf));
  const severalHosts = new Set(hosts).size > 1;
  for (const image of images) {
    const { contentHash, mediaType, intrinsic, bytes, frames } = image.file;
    const { encoded } = image;
    const reason = reasonToKeep(image);
    const format = encoded?.format;
    if (
      reason !== undefined ||
      !encoded?.resultHash ||
      !encoded.need ||
      !intrinsic ||
      !format ||
      format === 'svg'
    ) {
      kept.push({ url: image.url, reason: reason ?? 'it cannot be encoded' });
      continue;
    }
    const { need, resultHash, steps } = encoded;
    const url = image.urls.find(isFetched)!;
    const folder = severalHosts ? `${hostOf(url).replace(/[^\w.-]/g, '_')}/` : '';
    const stem = `${folder}${splitExtension(relativePathOf(url)).stem}`;
    const path = names.take(stem, format, contentHash);
    const file: RefitFile = {
      originals: image.urls.filter(isFetched),
      contentHash,
      path,
      resultHash,
      mediaType: `image/${format}`,
      from: { ...intrinsic, bytes, mediaType },
      to: { ...need, bytes: steps.best, format },
      savedBytes: bytes - steps.best,
    };
    const variants: VariantOrder[] = [];
    // Of an animation every frame would have to be made again: it has one file.
    if (frames === 1) {
      const fallback = fallbackFor(encoded.nature, format);
      const sizes = hasSourceSet(image) ? narrower(intrinsic, need, widthsOf(image.place)) : [];
      const takes = (ending: string, one: EncodedFormat) =>
        names.take(`${splitExtension(path).stem}${ending}`, one, contentHash);
      if (fallback)
        variants.push({
          ...{ contentHash, format: fallback, use: 'fallback', size: need },
          path: takes('', fallback),
        });
      for (const size of sizes)
        for (const one of fallback ? [format, fallback] : [format])
          variants.push({
            ...{ contentHash, format: one, size },
            use: one === format ? 'width' : 'fallback',
            path: takes(`-${size.width}`, one),
          });
    }
    const root = severalHosts ? `${new URL(url).origin}/` : '/';
    orders.push({ image, file, encoded, folder, root, variants });
  }
  return { orders, kept };
}

/** Whether an address is one of a file of its own, not of bytes in a document (`data:`, `blob:`). */
export function isFetched(url: string): boolean {
  return /^https?:/.test(url);
}

function reasonToKeep(image: RankedImage): string | undefined {
  if (!image.urls.some(isFetched)) return 'its bytes stand in the document that shows it';
  if (image.thirdParty) return 'it belongs to a third party';
  if (isVector(image.file)) return 'it is a vector: it fits every size';
  if (!image.isPlaced) return 'no element shows it';
  if (!image.isJudged) return image.problem ?? 'it cannot be read';
  if (!image.encoded) return 'no page shows it';
  const exempt = image.rules.find((rule) => rule.exempt);
  if (exempt) return `the policy lets it be: ${exempt.reason}`;
  if (image.encoded.steps.best >= image.file.bytes) return 'nothing smaller is good enough';
  return undefined;
}

/** Formats that every browser reads, whatever its age. */
const everywhere: ReadonlySet<EncodedFormat> = new Set(['jpeg', 'png', 'gif']);

/** What stands in for a modern format; `null` where there is no need of it. */
function fallbackFor(nature: Encoded['nature'], format: EncodedFormat): EncodedFormat | null {
  if (everywhere.has(format)) return null;
  const opaque: Nature = 'photograph';
  return nature === opaque ? 'jpeg' : 'png';
}

/** Whether it stands in markup that can offer several widths. */
function hasSourceSet(image: RankedImage): boolean {
  return image.placed.some(({ kind, shown }) => kind === 'img' && shown);
}

/** The widths below the need that are worth a file, the smallest first. */
function narrower(intrinsic: Size, need: Size, widths: readonly number[]): Size[] {
  const chosen: Size[] = [];
  let last = need.width;
  for (const width of [...new Set(widths)].sort((a, b) => b - a)) {
    if (width > last * worthAFile) continue;
    chosen.unshift(pixelsAt(intrinsic, width / intrinsic.width));
    last = width;
  }
  return chosen;
}

/** Names of files, none of them twice, whatever the case of their letters. */
class Names {
  readonly #taken = new Set<string>(Object.values(papers));

  take(stem: string, format: EncodedFormat, contentHash: string): string {
    const extension = format === 'jpeg' ? '.jpg' : `.${format}`;
    const plain = `${stem}${extension}`;
    const name = this.#taken.has(plain.toLowerCase())
      ? `${stem}-${contentHash.slice(0, 8)}${extension}`
      : plain;
    this.#taken.add(name.toLowerCase());
    return name;
  }
}
