import type { Pictures } from '../survey/pictures.js';
import type { RankedImage } from './ranked-image.js';
import { rankedPictures } from './ranked-picture.js';

/** How many pictures have each finding. */
export function findingCounts(
  images: readonly RankedImage[],
  pictures: Pictures,
): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { images: files } of rankedPictures(images, pictures))
    for (const id of new Set(files.flatMap((image) => image.findings.map((one) => one.id))))
      counts.set(id, (counts.get(id) ?? 0) + 1);
  return counts;
}
