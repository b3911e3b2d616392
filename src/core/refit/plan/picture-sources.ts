import type { Size } from '../../base/size.js';
import { pixelsAt } from '../../policy/need.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { Original } from './refit-names.js';
import type { RefitSource } from './refit-plan.js';

/** The size of pictures that no page shows yet, in pixels. */
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

/** The largest size to make of a picture, never larger than it is; `null` for a vector. */
export function needOfPicture(
  { intrinsic }: Pick<ImageFile, 'intrinsic'>,
  { longest, widths }: PictureLimits,
): Size | null {
  if (!intrinsic) return null;
  const { width, height } = intrinsic;
  const widest = widths.length > 0 ? Math.max(...widths) : Infinity;
  return pixelsAt(intrinsic, Math.min(1, longest / Math.max(width, height), widest / width));
}

/** The pictures of a folder for a plan, and their paths. */
export function sourcesOfPictures(
  pictures: readonly FolderPicture[],
  { widths }: PictureLimits,
): { sources: RefitSource[]; originals: Original[] } {
  const sources = pictures.map(({ file: image, encoded, paths }): RefitSource => ({
    ...{ image, encoded, originals: paths, keptAs: paths, path: paths[0]!, folder: '', root: '' },
    reason: image.problem ?? (encoded ? encoded.problem : 'it cannot be encoded'),
    widths: widths.filter((one) => one < (encoded?.need?.width ?? 0)),
    ...{ widest: 0, inPlace: false, systemWidths: [] },
  }));
  const originals = pictures.flatMap(({ file, paths }) =>
    paths.map((path) => ({ path, contentHash: file.contentHash, wholeWidth: null })),
  );
  return { sources, originals };
}
