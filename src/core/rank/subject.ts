import { pathOf } from '../address/address.js';
import { NotFoundError, UsageError } from '../base/errors.js';
import type { RankedImage } from './ranked-image.js';
import type { SurveyedPage } from '../survey/survey.js';

/** The subject to explain. */
export type Subject =
  | {
      readonly kind: 'image';
      readonly image: RankedImage;
      /** Other files that the same words mean, most waste first. */
      readonly others: readonly RankedImage[];
    }
  | { readonly kind: 'page'; readonly page: SurveyedPage };

/** The fewest digits of a shortened content hash. */
const leastDigits = 6;

/**
 * Finds what is meant: a page or an image by its address, whole or from its path on, an image by its content hash or
 * by a selector that shows it.
 *
 * @param images most waste first
 * @throws NotFoundError when nothing is meant; UsageError when a hash means several files.
 */
export function findSubject(
  text: string,
  images: readonly RankedImage[],
  pages: readonly SurveyedPage[],
): Subject {
  const named = (url: string) => url === text || (text.startsWith('/') && pathOf(url) === text);
  const page = pages.find(({ url, finalUrl }) => named(url) || named(finalUrl));
  if (page) return { kind: 'page', page };
  const byHash = imagesByHash(text, images);
  if (byHash.length > 1)
    throw new UsageError(`${text} matches the content hashes of ${byHash.length} files`, {
      hint: 'give more digits',
    });
  const found = [
    byHash,
    images.filter(({ urls }) => urls.some(named)),
    images.filter(({ placed }) => placed.some(({ selector }) => selector === text)),
    images.filter(({ urls }) => urls.some((url) => pathOf(url).endsWith(`/${text}`))),
  ].find((some) => some.length > 0);
  const [image, ...others] = found ?? [];
  if (image) return { kind: 'image', image, others };
  throw new NotFoundError(`the survey has no page, image, content hash or selector ${text}`, {
    hint: hintFor(text, images),
  });
}

function imagesByHash(text: string, images: readonly RankedImage[]): RankedImage[] {
  const start = text.toLowerCase();
  if (start.length < leastDigits || !/^[0-9a-f]+$/.test(start)) return [];
  return images.filter(({ file }) => file.contentHash.startsWith(start));
}

function hintFor(text: string, images: readonly RankedImage[]): string {
  const part = text.split('/').at(-1)!.toLowerCase();
  const like = images.find(({ url }) => part !== '' && url.toLowerCase().includes(part));
  return like ? `did you mean ${like.url}?` : 'zealous-lynx rank --by image lists the images';
}
