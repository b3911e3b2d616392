import { groupBy } from '../base/group-by.js';
import type { Pictures } from '../survey/pictures.js';
import type { RankedImage } from './ranked-image.js';

/** One picture with all the files that it comes in. */
export interface RankedPicture {
  /** Content hash of its largest file. */
  readonly id: string;
  /** The file with the most pixels first; at least one. */
  readonly images: readonly RankedImage[];
}

/** The pictures of some image files, in the order of their first files. */
export function rankedPictures(
  images: readonly RankedImage[],
  pictures: Pictures,
): RankedPicture[] {
  const places = new Map(pictures.files.flat().map((file, place) => [file, place]));
  return [...groupBy(images, ({ fileIndex }) => pictures.ofFile[fileIndex]!).values()].map(
    (some) => {
      const inOrder = some.toSorted((a, b) => places.get(a.fileIndex)! - places.get(b.fileIndex)!);
      return { id: inOrder[0]!.file.contentHash, images: inOrder };
    },
  );
}

/** Finds the picture that an image file is one file of. */
export function pictureFinder(
  pictures: readonly RankedPicture[],
): (image: RankedImage) => RankedPicture {
  const known = new Map(pictures.flatMap((one) => one.images.map((image) => [image, one])));
  return (image) => known.get(image) ?? { id: image.file.contentHash, images: [image] };
}
