import { textMatcher } from '../address/address-matcher.js';
import { pathOf } from '../address/address.js';
import { withoutSecrets } from '../address/secrets.js';
import { NotFoundError, UsageError } from '../base/errors.js';
import { findingNamed } from '../findings/index.js';
import type { FamilyKey } from '../slots/family-key.js';
import type { RankRow } from './rank-view.js';
import type { RankedImage } from './ranked-image.js';
import { cutMatcher, selectorMatcher } from './selector-match.js';
import type { SurveyedPage } from '../survey/survey.js';

/** The subject to explain. */
export type Subject =
  | {
      readonly kind: 'image';
      readonly image: RankedImage;
      /** Other files that the same words mean, most waste first. */
      readonly others: readonly RankedImage[];
    }
  | { readonly kind: 'page'; readonly page: SurveyedPage }
  | { readonly kind: 'file'; readonly url: string }
  | {
      readonly kind: 'family';
      /** The slot families of that slot, most waste first; at least one. */
      readonly rows: readonly RankRow[];
    }
  | {
      readonly kind: 'finding';
      readonly id: string;
      /** The images that have it, most waste first. */
      readonly images: readonly RankedImage[];
    };

/** The fewest digits of a shortened content hash. */
const leastDigits = 6;

/**
 * Finds what is meant: a page or an image by its address, whole or from its path on, an image by its content hash or
 * by a selector that shows it, a slot family by its slot, a finding by its id or title, another file by its address. What was cut in the middle when it was printed
 * (`…`) is taken as well.
 *
 * @param images most waste first
 * @param familiesOf the slot families, most waste first
 * @param filesOf the addresses of files that are no images
 * @throws NotFoundError when nothing is meant; UsageError when a hash means several files.
 */
export function findSubject(
  text: string,
  images: readonly RankedImage[],
  pages: readonly SurveyedPage[],
  familiesOf: () => readonly RankRow[] = () => [],
  filesOf: () => readonly string[] = () => [],
): Subject {
  // What is printed has no secrets, and is what people copy.
  const isText = (one: string) => one === text || withoutSecrets(one) === text;
  const named = (url: string) => isText(url) || (text.startsWith('/') && isText(pathOf(url)));
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
  const id = findingNamed(text)?.id;
  if (id !== undefined)
    return {
      ...{ kind: 'finding', id },
      images: images.filter(({ findings }) => findings.some((one) => one.id === id)),
    };
  const isCut = cutMatcher(text);
  const isSlot = (family: FamilyKey) =>
    shownSlots(family).some((one) => one === text || isCut?.(one));
  const rows = familiesOf().filter(({ family }) => family !== null && isSlot(family));
  if (rows.length > 0) return { kind: 'family', rows };
  const files = filesOf();
  const file =
    files.find(named) ??
    files.find((url) => pathOf(url).endsWith(`/${text}`)) ??
    files.find((url) => isCut?.(url) || isCut?.(pathOf(url)));
  if (file !== undefined) return { kind: 'file', url: file };
  const { matches, unknown } = selectorMatcher(text);
  const near = [
    isCut ? images.filter(({ urls }) => urls.some((url) => isCut(url) || isCut(pathOf(url)))) : [],
    isCut ? images.filter(({ placed }) => placed.some(({ selector }) => isCut(selector))) : [],
    images.filter(({ placed }) => placed.some(matches)),
  ].find((some) => some.length > 0);
  const [nearest, ...more] = near ?? [];
  if (nearest) return { kind: 'image', image: nearest, others: more };
  throw new NotFoundError(
    `the survey has no page, image, file, content hash, selector, slot or finding ${text}`,
    {
      hint:
        unknown === null
          ? hintFor(text, images, pages)
          : `write the selector with names, ids and classes: a survey does not keep what "${unknown}" asks for`,
    },
  );
}

/** A slot as it is printed: whole, or without the body that it begins with, and with its kind where it is no plain element. */
function shownSlots({ slot, kind }: FamilyKey): string[] {
  const slots = [slot, slot.replace(/^body > /, '')];
  return kind === null || kind === 'img'
    ? slots
    : slots.flatMap((one) => [one, `${one} (${kind})`]);
}

function imagesByHash(text: string, images: readonly RankedImage[]): RankedImage[] {
  const start = text.toLowerCase();
  if (start.length < leastDigits || !/^[0-9a-f]+$/.test(start)) return [];
  return images.filter(({ file }) => file.contentHash.startsWith(start));
}

function hintFor(
  text: string,
  images: readonly RankedImage[],
  pages: readonly SurveyedPage[],
): string {
  const isGroup = textMatcher(text);
  if (pages.some(({ group }) => group !== null && isGroup(group)))
    return 'it is a page group: give it to zealous-lynx rank --group';
  const part = text.split('/').at(-1)!.toLowerCase();
  const like = images.find(({ url }) => part !== '' && url.toLowerCase().includes(part));
  return like
    ? `did you mean ${like.url}?`
    : 'zealous-lynx rank --by image lists the images, and rank --by finding the findings';
}
