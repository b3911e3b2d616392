import type { Credit } from './credit.js';
import type { ImageFile } from '../survey/image-file.js';
import { pixelsAt } from '../policy/need.js';
import type { EncodedFormat } from '../policy/policy.js';
import { RefitNames, stemFor } from './refit-names.js';
import type { Collision, Naming } from './refit-names.js';
import { fallbackFor } from './refit-job.js';
import type { KeptFile, RefitJob, VariantJob } from './refit-job.js';
import { chosenQuality, fileFor, isSmaller } from './refit-plan.js';
import { narrower } from './refit-widths.js';
import type { Size } from '../base/size.js';
import type { Encoded } from '../survey/encoded.js';

/** How large pictures are to be that no page shows yet, in pixels. */
export interface PictureLimits {
  /** Of the longest side. */
  readonly longest: number;
  /** The widths to make; none makes one file for each picture. */
  readonly widths: readonly number[];
}

/** A picture in a folder. */
export interface FolderPicture {
  readonly file: ImageFile;
  /** `null` where it cannot be encoded. */
  readonly encoded: Encoded | null;
  /** Below the folder, with `/`. */
  readonly paths: readonly string[];
}

/** The pixels that a picture is to have at the most: never more than it has; `null` for a vector. */
export function needOfPicture(
  { intrinsic }: Pick<ImageFile, 'intrinsic'>,
  { longest, widths }: PictureLimits,
): Size | null {
  if (!intrinsic) return null;
  const { width, height } = intrinsic;
  const widest = widths.length > 0 ? Math.max(...widths) : Infinity;
  return pixelsAt(intrinsic, Math.min(1, longest / Math.max(width, height), widest / width));
}

/** Which files are to be made of pictures in a folder, under which names, and which stay as they are. */
export function planPictures(
  pictures: readonly FolderPicture[],
  { naming, credits }: { naming: Naming; credits: ReadonlyMap<string, Credit> },
  { widths }: PictureLimits,
): { orders: RefitJob[]; kept: KeptFile[]; collisions: readonly Collision[] } {
  const originals = pictures.flatMap(({ file, paths }) =>
    paths.map((path) => [path, file.contentHash] as const),
  );
  const names = new RefitNames(naming, originals);
  const orders: RefitJob[] = [];
  const kept: KeptFile[] = [];
  for (const { file: image, encoded, paths } of pictures) {
    const { contentHash, frames, intrinsic, mediaType } = image;
    const reason = image.problem ?? encoded?.problem ?? reasonToKeep(image, encoded);
    if (reason !== null || !encoded?.resultHash) {
      kept.push(
        ...paths.map((url) => ({ url, reason: reason ?? 'nothing smaller is good enough' })),
      );
      continue;
    }
    const { need, nature, format } = encoded;
    const stem = stemFor(paths[0]!, '', contentHash, naming);
    const size = need ?? { width: null, height: null };
    const path = names.take({ stem, ...size, format, contentHash, main: true });
    const variants: VariantJob[] = [];
    if (need && intrinsic && format !== 'svg' && nature !== 'vector') {
      const fallback = fallbackFor(nature, format, mediaType);
      const add = (one: EncodedFormat, wanted: Size, main: boolean) =>
        variants.push({
          ...{ contentHash, format: one, size: wanted, use: one === format ? 'width' : 'fallback' },
          path: names.take({ stem, ...wanted, format: one, contentHash, main }),
        });
      if (fallback) add(fallback, need, true);
      const less =
        frames > 1
          ? []
          : narrower(
              widths.filter((one) => one < need.width),
              need.width,
              need.width,
            );
      for (const width of less) {
        const wanted = pixelsAt(intrinsic, width / intrinsic.width);
        for (const one of fallback ? [format, fallback] : [format]) add(one, wanted, false);
      }
    }
    orders.push({
      file: fileFor(image, encoded, paths, path),
      ...{ nature, frames, variants, folder: '', root: '' },
      quality: chosenQuality(encoded),
      credit: credits.get(contentHash) ?? null,
    });
  }
  return { orders, kept, collisions: names.collisions };
}

function reasonToKeep(image: ImageFile, encoded: Encoded | null): string | null {
  if (!encoded) return 'it cannot be encoded';
  return isSmaller(image, encoded) ? null : 'nothing smaller is good enough';
}
