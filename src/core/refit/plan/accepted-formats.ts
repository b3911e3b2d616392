import { isReadEverywhere } from '../refit-job.js';
import type { MadeJob } from '../refit-job.js';

/** A file in a format that every browser reads, and the same pixels in a modern one. */
export interface AcceptedFormat {
  /** Path below the refit's folder, and so on the site. */
  readonly path: string;
  /** Path of what browsers get that accept it. */
  readonly accepted: string;
  readonly mediaType: string;
}

/**
 * Pairs of files from which a server can choose by the header `Accept`: of the same pixels, and the modern one not larger. An
 * original that stays, because nothing smaller could be made in its own format, is one of a pair, too.
 */
export function acceptedFormats(jobs: readonly MadeJob[]): AcceptedFormat[] {
  return jobs.flatMap((job): AcceptedFormat[] => {
    const { to, mediaType, path: main } = job.file;
    if (to.format === 'svg' || isReadEverywhere(to.format)) return [];
    const modern = [
      { path: main, width: to.width, bytes: to.bytes },
      ...job.variants
        .filter(({ format }) => format === to.format)
        .map(({ path, size, bytes }) => ({ path, width: size.width, bytes })),
    ];
    const plain = job.variants
      .filter(({ use }) => use === 'fallback')
      .map(({ path, size, bytes }) => ({ path, width: size.width, bytes }));
    const { from } = job.file;
    const isReplaced = plain.some(({ width }) => width === from.width);
    const originals = isReplaced || !isKnownEverywhere(from.mediaType) ? [] : originalPaths(job);
    const stays = originals.map((path) => ({ path, width: from.width, bytes: from.bytes }));
    return [...plain, ...stays].flatMap(({ path, width, bytes }) => {
      const twin = modern.find((one) => one.width === width && one.bytes <= bytes);
      return twin ? [{ path, accepted: twin.path, mediaType }] : [];
    });
  });
}

function isKnownEverywhere(mediaType: string): boolean {
  return /^image\/(?:jpeg|png|gif)$/.test(mediaType);
}

/** The paths of the originals on the site, as far as a server's rules can name them. */
function originalPaths({ file, folder, root }: MadeJob): string[] {
  if (folder !== '') return [];
  return file.originals.flatMap((address) => {
    if (!URL.canParse(address)) return [];
    const { pathname, search } = new URL(address);
    return search === '' && pathname.startsWith(root) ? [pathname.slice(root.length)] : [];
  });
}
