import { splitExtension } from '../../address/address.js';
import type { EncodedFormat } from '../../policy/policy.js';
import { ownFolders, refitPapers } from '../refit-job.js';
import type { PictureSize } from '../refit-job.js';

/** The names of the files of a refit. */
export interface Naming {
  /** `{stem}`, `{width}`, `{height}`, `{format}` and `{hash}` with other letters between; `null` for the usual names. */
  readonly pattern: string | null;
  /** New stems, by content hash: a name in the folder of the original or, with `/` in it, a path of its own. */
  readonly stems: ReadonlyMap<string, string>;
  /** Digits that are others whenever other bytes would come of an image. */
  readonly hashOf: (file: Pick<Named, 'contentHash' | 'format' | 'width' | 'height'>) => string;
}

/** A name that was taken already, and the one that was given instead. */
export interface Collision {
  readonly wanted: string;
  readonly path: string;
}

/** A file that is at a path of the site already. */
export interface Original {
  /** Below the refit's folder. */
  readonly path: string;
  /** `null` where the survey has not seen its bytes. */
  readonly contentHash: string | null;
  /**
   * Pixels across that whatever takes its place must have, because somebody asks for all of it; `null` if only the
   * elements of the survey do.
   */
  readonly wholeWidth: number | null;
}

/** What a name is made for. */
export interface Named extends PictureSize {
  /** Path of the original without its extension, below the refit's folder. */
  readonly stem: string;
  readonly format: EncodedFormat | 'svg';
  readonly contentHash: string;
  /** Whether it is the file that replaces the original. */
  readonly main: boolean;
  /** Path of the original that it has the pixels of, and may lie at. */
  readonly inPlaceOf?: string | undefined;
}

/** Folder for files whose own folder has a name that the refit uses itself. */
const apart = 'site/';

/** Names of files, none of them twice, whatever the case of their letters. */
export class RefitNames {
  readonly #naming: Naming;
  readonly #taken: Set<string>;
  /** Folders of the names that are taken. */
  readonly #folders = new Set<string>();
  readonly #originals = new Map<string, Original>();
  readonly collisions: Collision[] = [];

  /**
   * @param originals all files that are known to be there: a file may lie where its own original does, if it can take its
   *   place for everybody, and never where another one does
   */
  constructor(naming: Naming, originals: Iterable<Original>) {
    this.#naming = naming;
    this.#taken = new Set(Object.values(refitPapers));
    for (const original of originals) this.#originals.set(original.path.toLowerCase(), original);
  }

  /** A name for a file, as a path below the folder. */
  take(named: Named): string {
    const { inPlaceOf } = named;
    const isFree = (path: string) =>
      !this.#isTaken(path.toLowerCase(), named) && this.#outOfFiles(path) === path;
    if (inPlaceOf !== undefined && isFree(inPlaceOf)) return this.#taking(inPlaceOf);
    const { stem: own, extension } = this.#wanted(named);
    const wanted = `${own}${extension}`;
    const stem = this.#outOfFiles(own);
    const isOurs = Object.values(ownFolders).some((folder) =>
      wanted.toLowerCase().startsWith(folder),
    );
    const place = isOurs ? apart : '';
    let path = `${place}${stem}${extension}`;
    // A file that cannot have the name of its own original says its width, as its other widths do.
    if (named.main && this.#isSmallerThanAsked(path.toLowerCase(), named))
      path = `${place}${stem}-${named.width}${extension}`;
    for (let round = 1; this.#isTaken(path.toLowerCase(), named); round++)
      path = `${place}${stem}-${this.#naming.hashOf(named)}${round > 1 ? `-${round}` : ''}${extension}`;
    if (path !== wanted) this.collisions.push({ wanted, path });
    return this.#taking(path);
  }

  #taking(path: string): string {
    this.#taken.add(path.toLowerCase());
    for (const folder of foldersOf(path)) this.#folders.add(folder.toLowerCase());
    return path;
  }

  /** A path that leads through no file: services have `kite.jpg`, and `kite.jpg/w_600/kite.jpg` below it. */
  #outOfFiles(path: string): string {
    const segments = path.split('/');
    for (let depth = 1; depth < segments.length; depth++)
      while (this.#taken.has(segments.slice(0, depth).join('/').toLowerCase()))
        segments[depth - 1] += '_';
    return segments.join('/');
  }

  #isTaken(name: string, named: Named): boolean {
    const { contentHash } = named;
    if (this.#taken.has(name) || this.#folders.has(name)) return true;
    const original = this.#originals.get(name);
    if (!original) return false;
    return original.contentHash !== contentHash || this.#isSmallerThanAsked(name, named);
  }

  /** Whether its own original lies there, and somebody asks for more pixels of it. */
  #isSmallerThanAsked(name: string, { contentHash, width }: Named): boolean {
    const original = this.#originals.get(name);
    if (!original || original.contentHash !== contentHash) return false;
    return original.wholeWidth !== null && width !== null && width !== original.wholeWidth;
  }

  #wanted(named: Named) {
    const { stem, width, height, format, main } = named;
    const extension = format === 'jpeg' ? '.jpg' : `.${format}`;
    const place = stem.lastIndexOf('/') + 1;
    const [folder, name] = [stem.slice(0, place), stem.slice(place)];
    const { pattern } = this.#naming;
    const own = main ? '{stem}' : '{stem}-{width}';
    const filled = (pattern ?? own)
      // A vector has no width: what stands before it goes, too.
      .replace(/[-_.~]?\{(width|height)\}/g, (text, side: 'width' | 'height') => {
        const pixels = side === 'width' ? width : height;
        return pixels === null ? '' : text.replace(`{${side}}`, String(pixels));
      })
      .replaceAll('{stem}', name)
      .replaceAll('{format}', format)
      .replaceAll('{hash}', this.#naming.hashOf(named));
    return { stem: folder + (filled || name), extension };
  }
}

/** The folders that a path leads through. */
function foldersOf(path: string): string[] {
  const segments = path.split('/');
  return segments.slice(1).map((_, at) => segments.slice(0, at + 1).join('/'));
}

/** The path of an original without its extension, with its new stem where it has one. */
export function stemFor(
  path: string,
  folder: string,
  contentHash: string,
  { stems }: Naming,
): string {
  const { stem } = splitExtension(path);
  const given = stems.get(contentHash);
  if (given === undefined) return folder + stem;
  const place = given.includes('/') ? 0 : stem.lastIndexOf('/') + 1;
  return folder + stem.slice(0, place) + given;
}

/** Whether a text may be a stem in a CSV file: plain letters, and nothing that leaves the folder. */
export function isSafeStem(text: string): boolean {
  return (
    text.length <= 200 &&
    text.split('/').every((part) => /^[\w~-][\w.~-]*$/.test(part)) &&
    !text.includes('..')
  );
}

/** Whether a text may be a pattern of names. */
export function isNamePattern(text: string): boolean {
  const tokens = /\{(?:stem|width|height|format|hash)\}/g;
  const rest = text.replaceAll(tokens, '');
  return /^[\w.~-]*$/.test(rest) && !/^\.|\.\./.test(text) && /\{(?:stem|hash)\}/.test(text);
}
