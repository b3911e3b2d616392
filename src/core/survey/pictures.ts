import { isFetched } from '../address/address.js';
import { pictureKey } from '../address/unsized-address.js';
import { area } from '../base/size.js';
import { attributeOf } from '../slots/element-markup.js';
import { parseSrcset } from '../slots/srcset.js';
import { fingerprintColours, looksTheSame, sameShape } from './fingerprint.js';
import type { Fingerprint } from './fingerprint.js';
import type { ImageFile } from './image-file.js';
import type { PlacementTable, ResponseTable } from './survey-tables.js';

/** What pictures are told from. */
interface FilesAndPlaces {
  readonly files: readonly ImageFile[];
  readonly placements: PlacementTable;
  readonly responses: ResponseTable;
}

/** The pictures of a survey: what is seen, each with all the files that it comes in. */
export interface Pictures {
  /** The picture of each file, by its place in the list of files. */
  readonly ofFile: Int32Array;
  /** The files of each picture, that with the most pixels first. */
  readonly files: readonly (readonly number[])[];
}

/**
 * Sets of files that may be one picture in several sizes and formats: those that one element offers together (`srcset`, the
 * sources of a `<picture>`), and those whose addresses differ in a size alone. Only a look at them tells.
 *
 * @returns places in the list of files, at least two in each set
 */
export function possiblePictures(facts: FilesAndPlaces): number[][] {
  const possible = new PossiblePictures(facts.files);
  possible.noteAddresses(facts);
  possible.noteOffers(facts);
  return possible.sets();
}

/** The same of a survey that is read in parts: first the addresses of all of them, then what their elements offer. */
export class PossiblePictures {
  readonly #files: readonly ImageFile[];
  /** The file at each address. */
  readonly #addresses = new Map<string, number>();
  readonly #offered: number[][] = [];

  constructor(files: readonly ImageFile[]) {
    this.#files = files;
  }

  noteAddresses({ responses }: Pick<FilesAndPlaces, 'responses'>): void {
    const { answer, file } = responses.columns;
    file.forEach((place, row) => {
      if (place < 0 || !this.#files[place]!.intrinsic) return;
      const { url } = responses.answers[answer[row]!]!;
      if (isFetched(url)) this.#addresses.set(url, place);
    });
  }

  noteOffers({ placements }: Pick<FilesAndPlaces, 'placements'>): void {
    for (const set of offeredTogether(placements, this.#addresses)) this.#offered.push(set);
  }

  sets(): number[][] {
    return [...namedAlike(this.#files, this.#addresses), ...this.#offered].filter(
      ({ length }) => length > 1,
    );
  }
}

function namedAlike(
  files: readonly ImageFile[],
  addresses: ReadonlyMap<string, number>,
): number[][] {
  const sets = new Map<string, Set<number>>();
  for (const [url, place] of addresses) {
    const { intrinsic } = files[place]!;
    const key = pictureKey(url, intrinsic ? [intrinsic.width, intrinsic.height] : []);
    sets.set(key, (sets.get(key) ?? new Set()).add(place));
  }
  return [...sets.values()].map((set) => [...set]);
}

function offeredTogether(
  placements: PlacementTable,
  addresses: ReadonlyMap<string, number>,
): number[][] {
  const { shape, element, url } = placements.columns;
  const { shapes, elements } = placements.lists;
  const seen = new Set<string>();
  const sets: number[][] = [];
  for (let row = 0; row < placements.length; row++) {
    const srcset = shapes[shape[row]!]!.markup?.srcset ?? '';
    const markup = elements[element[row]!];
    const sources = markup?.picture?.sources ?? [];
    if (srcset === '' && sources.length === 0) continue;
    // What one template offers is read once for each address that it was chosen from.
    const key = `${shape[row]!} ${element[row]!} ${url[row]!}`;
    if (seen.has(key)) continue;
    seen.add(key);
    const placement = placements.at(row);
    const texts = [srcset, ...sources.map((source) => attributeOf(source, 'srcset') ?? '')];
    const offered = texts.flatMap((text) => parseSrcset(text).map((candidate) => candidate.url));
    const places = [
      placement.url,
      attributeOf(markup?.attributes ?? [], 'src') ?? '',
      ...offered,
    ].flatMap((text) =>
      URL.canParse(text, placement.page)
        ? (addresses.get(new URL(text, placement.page).href) ?? [])
        : [],
    );
    sets.push([...new Set(places)]);
  }
  return sets;
}

/**
 * Groups the files of a survey into pictures. Files that may be one picture are where they look alike; what shows something
 * else (another cut, other colours) stays apart, as does a file without a fingerprint.
 *
 * @param possible sets of places in the list of files
 */
export function groupPictures(
  { files }: Pick<FilesAndPlaces, 'files'>,
  possible: readonly (readonly number[])[],
  fingerprintOf: (contentHash: string) => Fingerprint | undefined,
): Pictures {
  const parents = Int32Array.from(files.keys());
  const rootOf = (place: number): number => {
    let root = place;
    while (parents[root] !== root) root = parents[root] = parents[parents[root]!]!;
    return root;
  };
  const colours = files.map(({ contentHash }) => {
    const bytes = fingerprintOf(contentHash);
    return bytes && fingerprintColours(bytes);
  });
  const pixels = (place: number) => {
    const { intrinsic } = files[place]!;
    return intrinsic ? area(intrinsic) : 0;
  };
  const byPixels = (a: number, b: number) =>
    pixels(b) - pixels(a) || files[b]!.bytes - files[a]!.bytes || a - b;
  for (const set of possible) {
    const heads: number[] = [];
    for (const place of set.toSorted(byPixels)) {
      const look = colours[place];
      if (!look) continue;
      const head = heads.find(
        (one) => sameShape(files[one]!, files[place]!) && looksTheSame(colours[one]!, look),
      );
      if (head === undefined) heads.push(place);
      else parents[rootOf(place)] = rootOf(head);
    }
  }
  const members = new Map<number, number[]>();
  files.forEach((_, place) => {
    const root = rootOf(place);
    const known = members.get(root);
    if (known) known.push(place);
    else members.set(root, [place]);
  });
  const grouped = [...members.values()].map((some) => some.sort(byPixels));
  const ofFile = new Int32Array(files.length);
  grouped.forEach((some, picture) => {
    for (const place of some) ofFile[place] = picture;
  });
  return { ofFile, files: grouped };
}

/** Every file a picture of its own: where nothing has been looked at. */
export function singlePictures({ files }: Pick<FilesAndPlaces, 'files'>): Pictures {
  return groupPictures({ files }, [], () => undefined);
}
