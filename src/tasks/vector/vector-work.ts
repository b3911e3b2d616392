import { smallerVector } from '../../texts/smaller-vector.js';
import { thumbnailOf } from '../../images/thumbnail.js';
import { drawTheSame } from '../../images/vector.js';

/** What is done with vector images of pages, by name; `null` where it cannot be done. */
export const vectorWork = {
  /** The image without what nobody sees of it, if it draws the same and is smaller. */
  smaller: async (body: Buffer): Promise<Buffer | null> => {
    const text = await smallerVector(body.toString('utf8'));
    if (text === null) return null;
    const smaller = Buffer.from(text);
    if (smaller.length >= body.length) return null;
    return (await drawTheSame(body, smaller)) ? smaller : null;
  },
  /** A small picture to know the image by, as WebP. */
  thumbnail: (body: Buffer): Promise<Buffer | null> => thumbnailOf(body),
};

export type VectorWork = typeof vectorWork;
