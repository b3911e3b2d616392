import sharp from 'sharp';
import { withoutSecrets } from '../core/address/secrets.js';

/** The greatest height of a picture drawn as pixels. */
const maxHeight = 16_000;

/**
 * A drawing of our own as a PNG picture, a pixel to a unit.
 *
 * @throws RangeError when it would be too high for a picture.
 */
export async function rasterise(svg: string): Promise<Buffer> {
  const height = Number(/\bheight="(\d+)"/.exec(svg)?.[1] ?? 0);
  if (height > maxHeight)
    throw new RangeError(
      `a picture of ${height} pixels is too high, at most ${maxHeight} are drawn`,
    );
  return sharp(Buffer.from(withoutSecrets(svg)))
    .png({ palette: true })
    .toBuffer();
}
