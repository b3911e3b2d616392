import sharp from 'sharp';

/** Pixels of the box that a thumbnail fits into: a row of a table, at the density of most screens of today. */
const box = { width: 120, height: 84 };

/**
 * A small picture to know an image by, as WebP.
 *
 * @returns `null` for what cannot be decoded
 */
export async function thumbnailOf(body: Buffer): Promise<Buffer | null> {
  try {
    return await sharp(body, { failOn: 'none' })
      .rotate()
      .resize({ ...box, fit: 'inside', withoutEnlargement: true, fastShrinkOnLoad: true })
      .webp({ quality: 55, effort: 0 })
      .toBuffer();
  } catch {
    return null;
  }
}
