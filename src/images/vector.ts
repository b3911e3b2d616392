import sharp from 'sharp';
import { structuralSimilarity } from '../core/pixels/structural-similarity.js';
import { readLuma } from './picture.js';

/** The size of the drawing that is compared, in pixels. */
const sampleSide = 400;
/** The least similarity of two equal drawings. */
const leastAlike = 0.999;

/**
 * Whether two vector images draw the same.
 *
 * @throws where one of them draws nothing
 */
export async function drawTheSame(one: Buffer, other: Buffer): Promise<boolean> {
  const [was, is] = await Promise.all(
    [one, other].map(async (body) => {
      const drawn = await sharp(body)
        .resize(sampleSide, sampleSide, { fit: 'inside' })
        .png()
        .toBuffer();
      return readLuma(drawn, 1);
    }),
  );
  const sameSize = was!.width === is!.width && was!.height === is!.height;
  return sameSize && structuralSimilarity(was!, is!) >= leastAlike;
}
