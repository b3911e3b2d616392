import sharp from 'sharp';
import type { Sharp } from 'sharp';
import type { Region } from '../core/base/region.js';
import { similarity } from '../core/pixels/similarity.js';
import type { Size } from '../core/base/size.js';
import { worstPlace } from '../core/pixels/worst-place.js';
import { readColours, reduce } from './picture.js';

/** The pieces of a picture that are looked at before anything goes live, in its own pixels. */
export interface ReviewCrops {
  /** The ideal reduction, as a lossless file. */
  readonly before: Buffer;
  /** The picture that a visitor sees, as a lossless file. */
  readonly after: Buffer;
  /** Of both. */
  readonly size: Size;
  /** Where they differ most, within the crops. */
  readonly worst: Region;
  readonly similarity: number;
}

/** What is shown at 100 %, and what is shown enlarged. */
const cropSize = { width: 560, height: 374 };
const worstSize = { width: 46, height: 70 };

/**
 * Cuts out of an original, at the size of its refit, and out of the refit the piece around the place where they differ
 * most.
 *
 * @throws Error when one of them cannot be decoded.
 */
export async function reviewCrops(
  original: Buffer,
  refitted: Buffer,
  size: Size,
): Promise<ReviewCrops> {
  const ideal = await reduce(original, 1, size);
  const seen = await readColours(refitted, 1);
  const spot = worstPlace(ideal.colours.lightness, seen.lightness, worstSize);
  const crop = around(spot, size);
  // Looked at once: a little larger is better than a tenth of a second more for each.
  const cut = (body: Sharp) => body.extract(crop).webp({ lossless: true, effort: 1 }).toBuffer();
  return {
    before: await cut(ideal.still()),
    after: await cut(sharp(refitted)),
    size: { width: crop.width, height: crop.height },
    worst: { ...spot, left: spot.left - crop.left, top: spot.top - crop.top },
    similarity: similarity(ideal.colours, seen),
  };
}

/** A larger piece with a spot as near to its middle as the picture's edges allow. */
function around(spot: Region, size: Size): Region {
  const width = Math.min(cropSize.width, size.width);
  const height = Math.min(cropSize.height, size.height);
  const within = (least: number, wanted: number) => Math.max(0, Math.min(least, wanted));
  return {
    left: within(size.width - width, Math.round(spot.left + spot.width / 2 - width / 2)),
    top: within(size.height - height, Math.round(spot.top + spot.height / 2 - height / 2)),
    width,
    height,
  };
}
