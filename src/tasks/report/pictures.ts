import pLimit from 'p-limit';
import { isVector } from '../../core/survey/image-file.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { Film } from '../../core/pixels/film.js';
import { picturesAtOnce } from '../../images/at-once.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/** Thumbnails of images in their order, as WebP in base64; empty for those whose body is not kept or not readable. */
export async function thumbnailsOf(
  { bodies }: Pick<Workspace, 'bodies'>,
  images: readonly RankedImage[],
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<string[]> {
  const { thumbnailOf } = await import('../../images/thumbnail.js');
  const { inVectorProcess } = await import('../vector/vector-process.js');
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  return Promise.all(
    images.map((image) =>
      limit(async () => {
        if (signal?.aborted) return '';
        const { contentHash } = image.file;
        // The file at its need is smaller, and quicker to read.
        const made = image.encoded?.resultHash;
        const hash = made && bodies.has(made) ? made : contentHash;
        const body = await bodies.readIfSound(hash);
        const draw = isVector(image.file)
          ? (drawing: Buffer) => inVectorProcess('thumbnail', drawing)
          : thumbnailOf;
        const thumbnail = body && (await draw(body));
        onProgress({ stage: 'pictures', done: ++done, total: images.length, doing: image.url });
        return thumbnail?.toString('base64') ?? '';
      }),
    ),
  );
}

/** An image before and after. */
export interface ImagePair {
  /** Place in the list of images. */
  readonly image: number;
  readonly width: number;
  readonly height: number;
}

/** Pairs of pictures, two each, in base64. */
export interface ImagePairs {
  readonly pairs: readonly ImagePair[];
  readonly pictures: readonly string[];
}

/** Larger pictures would make a report heavy: their pairs would be looked at in pieces anyway. */
const longestSide = 1_000;

/** The images that waste the most: what they are, reduced to the size of their need, and the file that would be enough. */
export async function imagePairs(
  { bodies }: Pick<Workspace, 'bodies'>,
  images: readonly RankedImage[],
  most: number,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<ImagePairs> {
  const { reducedPicture } = await import('../../images/reduced-picture.js');
  const shown = images.flatMap((image, at) => {
    const { encoded, file, waste } = image;
    const made = encoded?.resultHash;
    if (!made || !encoded.need || !bodies.has(made) || !bodies.has(file.contentHash)) return [];
    const isSmall = Math.max(encoded.need.width, encoded.need.height) <= longestSide;
    return isSmall && waste && waste.wasteBytes > 0 ? [{ at, made, need: encoded.need, file }] : [];
  });
  const due = shown.slice(0, most);
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  const made = await Promise.all(
    due.map(({ at, made: result, need, file }) =>
      limit(async () => {
        if (signal?.aborted) return null;
        onProgress({ stage: 'pictures', done: done++, total: due.length, doing: images[at]!.url });
        try {
          const before = await reducedPicture(await bodies.read(file.contentHash), need);
          return { at, need, sides: [before, await bodies.read(result)] };
        } catch {
          // A file that cannot be decoded again has no pair.
          return null;
        }
      }),
    ),
  );
  const pairs = made.flatMap((pair) => pair ?? []);
  return {
    pairs: pairs.map(({ at, need }) => ({ image: at, ...need })),
    pictures: pairs.flatMap(({ sides }) => sides.map((side) => side.toString('base64'))),
  };
}

/** The frames of films, one after the other, as JPEG in base64. */
export function framesOf(films: readonly (Film | null)[]): string[] {
  return films.flatMap((film) =>
    (film?.frames ?? []).map(({ picture }) => Buffer.from(picture).toString('base64')),
  );
}
