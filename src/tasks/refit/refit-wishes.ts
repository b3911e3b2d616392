import slugify from '@sindresorhus/slugify';
import { readCredits, readRenames } from '../../crawl/picture-lists.js';
import type { ListedPicture } from '../../crawl/picture-lists.js';
import type { Credit } from '../../core/refit/credit.js';
import { UsageError } from '../../core/base/errors.js';
import { picturesByName } from '../../core/refit/plan/picture-names.js';
import type { NamedPicture, PicturesNamed } from '../../core/refit/plan/picture-names.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Naming } from '../../core/refit/plan/refit-names.js';
import type { Master } from '../../core/refit/refit-job.js';
import { encodeKey } from '../../images/encode-key.js';
import { contentHashOf } from '../../images/hash.js';

/** The names and metadata that a person wants in the files of a refit. */
export interface RefitWishes {
  /** Pattern of names; by default the usual ones. */
  readonly name?: string | undefined;
  /** File with new names. */
  readonly rename?: string | undefined;
  /** Takes new names from the alternative texts if no file gives one. */
  readonly nameByAlt?: boolean;
  /** File with titles, descriptions, keywords, creators and copyrights. */
  readonly credits?: string | undefined;
}

/** A picture that can be given a new name. */
export interface NameablePicture extends NamedPicture {
  readonly alt: string | null;
}

const maxStem = 60;
const hashDigits = 8;

/**
 * Reads the files that wishes name, and finds the pictures that they are about.
 *
 * @throws UsageError when a file names a picture that is not there, or one of several.
 */
export function wishesFor(
  pictures: readonly NameablePicture[],
  { name, rename, nameByAlt = false, credits }: RefitWishes,
  policy: Policy,
): { readonly naming: Naming; readonly credits: ReadonlyMap<string, Credit> } {
  const find = picturesByName(pictures);
  const stems = new Map<string, string>();
  if (nameByAlt)
    for (const { contentHash, alt } of pictures) {
      const stem = slugify(alt ?? '')
        .slice(0, maxStem)
        .replace(/-[^-]*$/, (end) => (slugify(alt ?? '').length > maxStem ? '' : end));
      if (stem) stems.set(contentHash, stem);
    }
  if (rename !== undefined)
    for (const [hash, stem] of matched(readRenames(rename), find)) stems.set(hash, stem);
  const said = new Map(credits === undefined ? [] : matched(readCredits(credits), find));
  const key = encodeKey(policy);
  const hashOf: Naming['hashOf'] = ({ contentHash, format, width, height }) => {
    const made = [contentHash, format, width, height, key, said.get(contentHash) ?? null];
    return contentHashOf(Buffer.from(JSON.stringify(made))).slice(0, hashDigits);
  };
  return { naming: { pattern: name ?? null, stems, hashOf }, credits: said };
}

/** Names whose hash tells of the larger file as well from which an image is made. */
export function namedByMasters(naming: Naming, masters: ReadonlyMap<string, Master>): Naming {
  return {
    ...naming,
    hashOf: (file) => {
      const own = naming.hashOf(file);
      const master = masters.get(file.contentHash);
      if (!master) return own;
      return contentHashOf(Buffer.from(`${own} ${master.contentHash}`)).slice(0, hashDigits);
    },
  };
}

function matched<Said>(
  listed: readonly ListedPicture<Said>[],
  find: PicturesNamed,
): (readonly [string, Said])[] {
  const seen = new Map<string, string>();
  return listed.map(({ name, said, where }) => {
    const found = find(name);
    const [hash] = found;
    const shown = JSON.stringify(name.slice(0, 100));
    if (hash === undefined)
      throw new UsageError(`${where}: there is no image ${shown} to refit`, {
        hint: 'use its address, its path or its file name',
      });
    if (found.length > 1)
      throw new UsageError(`${where}: ${found.length} images are called ${shown}`, {
        hint: 'write more of the path',
      });
    const before = seen.get(hash);
    if (before !== undefined)
      throw new UsageError(`${where}: ${shown} is the same image as ${before}`);
    seen.set(hash, shown);
    return [hash, said] as const;
  });
}
