import { UsageError } from '../../core/base/errors.js';
import type { ImageFilter, VisitFilter } from '../../core/rank/filter.js';
import { imageFindings } from '../../core/findings/image/index.js';
import { siteFindings } from '../../core/findings/site/index.js';
import { causes } from '../../core/waste/waste.js';
import type { Cause } from '../../core/waste/waste.js';
import { nearest } from '../nearest.js';

/** The fields of `--where`. */
export const filterWords =
  'party=first or third, cause=NAME, type=jpeg, bytes=LEAST, finding=ID, view=NAME, page=PATTERN, group=PATTERN';

const imageIds: readonly string[] = imageFindings.map(({ id }) => id);
const fileIds: readonly string[] = siteFindings.map(({ id }) => id);

/** Media types of images, as people write them. */
const types = ['jpeg', 'png', 'gif', 'webp', 'avif', 'svg', 'jxl', 'heic', 'tiff'] as const;

/** Ends of files that mean one of them. */
const otherNames: Readonly<Record<string, string>> = {
  jpg: 'jpeg',
  'svg+xml': 'svg',
  tif: 'tiff',
};

const fields = ['party', 'cause', 'type', 'bytes', 'finding', 'view', 'page', 'group'];

/**
 * The parts of a filter, from `name=value` texts: any value of one name must match, and every name.
 *
 * @param ofImages whether only images are looked at, which have no findings on other files
 */
export function filtersOf(
  given: readonly string[],
  viewNames: readonly string[],
  ofImages: boolean,
): { images: ImageFilter; visits: Required<VisitFilter> } {
  const visits = { pages: [] as string[], groups: [] as string[], views: [] as string[] };
  const chosen = { causes: [] as Cause[], types: [] as string[], findings: [] as string[] };
  let party: ImageFilter['party'];
  let bytes: number | undefined;
  for (const text of given) {
    const at = text.indexOf('=');
    const [name, value] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
    if (value === '') throw mistaken(text, 'name=value', `there are: ${filterWords}`);
    if (name === 'party') party = among(['first', 'third'] as const, value, text);
    else if (name === 'cause') chosen.causes.push(among(causes, value, text));
    else if (name === 'type') chosen.types.push(typeOf(value, text));
    else if (name === 'finding') chosen.findings.push(findingOf(value, text, ofImages));
    else if (name === 'bytes') bytes = wholeBytes(value, text);
    else if (name === 'view') visits.views.push(among(viewNames, value, text));
    else if (name === 'page') visits.pages.push(value);
    else if (name === 'group') visits.groups.push(value);
    else {
      const meant = nearest(name, fields);
      throw mistaken(text, 'a known name', meant ? `did you mean ${meant}?` : filterWords);
    }
  }
  return { images: { ...chosen, party, bytes }, visits };
}

function findingOf(value: string, text: string, ofImages: boolean): string {
  if (!ofImages) return among([...imageIds, ...fileIds], value, text);
  if (fileIds.includes(value))
    throw mistaken(
      text,
      'a finding on images',
      `zealous-lynx explain ${value} lists the files that have it, and rank --by finding their bytes`,
    );
  return among(imageIds, value, text);
}

/** The end of the media type that is meant. */
function typeOf(value: string, text: string): string {
  const bare = value
    .toLowerCase()
    .replace(/^image\//, '')
    .replace(/^\./, '');
  const type = among(types, otherNames[bare] ?? bare, text);
  return type === 'svg' ? 'svg+xml' : type;
}

function among<Word extends string>(words: readonly Word[], value: string, text: string): Word {
  const word = words.find((one) => one === value);
  if (word === undefined) throw mistaken(text, `one of ${words.join(', ')}`, 'check its spelling');
  return word;
}

function wholeBytes(value: string, text: string): number {
  const match = /^(\d{1,12})(k|M)?B?$/.exec(value);
  if (!match) throw mistaken(text, 'bytes, like 100000 or 100k', 'check the number');
  return Number(match[1]) * ({ k: 1e3, M: 1e6 }[match[2] ?? ''] ?? 1);
}

function mistaken(text: string, allowed: string, hint: string): UsageError {
  return new UsageError(`--where ${text}: expected ${allowed}`, { hint });
}
