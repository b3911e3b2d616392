import sharp from 'sharp';

/**
 * Bytes of a file that are no picture: EXIF with its thumbnail, ICC profile, IPTC, XMP, comments.
 *
 * @throws Error when the bytes are no image.
 */
export async function metadataBytes(body: Buffer): Promise<number> {
  const { exif, icc, iptc, xmp, tifftagPhotoshop, comments = [] } = await sharp(body).metadata();
  const blocks = [exif, icc, iptc, xmp, tifftagPhotoshop];
  const texts = comments.map(({ keyword, text }) => keyword.length + text.length);
  return [...blocks.map((block) => block?.length ?? 0), ...texts].reduce(
    (sum, one) => sum + one,
    0,
  );
}
