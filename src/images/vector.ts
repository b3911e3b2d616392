import sharp from 'sharp';
import { optimize } from 'svgo';
import { structuralSimilarity } from '../core/pixels/structural-similarity.js';
import { readLuma } from './picture.js';

/** Longer texts are left as they are: parsing them would hold up everything else. */
const maxBytes = 1_000_000;
/** The most passes over a text of this length. */
const severalPasses = 100_000;
/** The size of the drawing that is compared, in pixels. */
const sampleSide = 400;
/** The least similarity of two equal drawings. */
const leastAlike = 0.999;

/**
 * A drawing without its invisible parts: leftovers of its editor, spare digits, spare elements. Names that can
 * be linked to (`drawing.svg#part`) stay.
 *
 * @returns `null` where nothing smaller looks the same
 */
export async function optimiseVector(body: Buffer): Promise<Buffer | null> {
  if (body.length > maxBytes) return null;
  try {
    const { data } = optimize(body.toString('utf8'), {
      multipass: body.length <= severalPasses,
      plugins: [
        {
          name: 'preset-default',
          params: { overrides: { cleanupIds: false, removeHiddenElems: false } },
        },
      ],
    });
    const smaller = Buffer.from(data);
    if (smaller.length >= body.length) return null;
    return (await looksLike(body, smaller)) ? smaller : null;
  } catch {
    // What is no drawing to the optimiser stays as it is.
    return null;
  }
}

async function looksLike(one: Buffer, other: Buffer): Promise<boolean> {
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
