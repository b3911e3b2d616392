import { findingKinds } from '../findings/index.js';
import type { Doer } from '../findings/finding.js';
import type { SiteFinding } from '../findings/site/index.js';
import { groupBy } from '../base/group-by.js';
import type { SortKey } from './sort-keys.js';
import type { RankedImage } from './ranked-image.js';

/** A kind of finding, and all that a survey has of it. */
export interface FindingRow {
  readonly id: string;
  readonly about: 'image' | 'file' | 'page' | 'service';
  readonly doer: Doer | null;
  /** Image files, other files, pages or services that have it. */
  readonly count: number;
  /** Pages on which they are. */
  readonly pages: number;
  /**
   * Of files: the bytes that an average visit would not be sent; `null` where the cost is none of bytes. Of images: what
   * an average visit wastes on those that have it.
   */
  readonly bytesPerVisit: number | null;
  /** Milliseconds that an average visit would be spared; `null` where the cost is none of time, or is not known. */
  readonly timePerVisit: number | null;
  /** The one that costs the most: an address, or the name of a page group. */
  readonly worst: string;
}

const ofBytes = ({ bytesPerVisit }: FindingRow) => bytesPerVisit ?? -1;
const ofTime = ({ timePerVisit }: FindingRow) => timePerVisit ?? -1;
const ofPages = ({ pages }: FindingRow) => pages;
const ofCount = ({ count }: FindingRow) => count;

/**
 * The findings of a survey by kind.
 *
 * @param sort by pages, files or time, the most first; by any other key those that cost the most bytes
 */
export function findingRows(
  images: readonly RankedImage[],
  site: readonly SiteFinding[],
  sort: SortKey = 'waste',
): FindingRow[] {
  const found = groupBy(
    images.flatMap((image) => image.findings.map(({ id }) => ({ id, image }))),
    ({ id }) => id,
  );
  const ofImages = findingKinds.image.flatMap(({ id, doer }): FindingRow[] => {
    const having = found.get(id)?.map(({ image }) => image);
    if (!having) return [];
    const pages = new Set(having.flatMap(({ placed }) => placed.map(({ page }) => page)));
    const bytesPerVisit = having.reduce((sum, { perVisit }) => sum + perVisit.wasteBytes, 0);
    const about = 'image' as const;
    const worst = having[0]!.url;
    const count = having.length;
    const timePerVisit = null;
    return [{ id, about, doer, count, pages: pages.size, bytesPerVisit, timePerVisit, worst }];
  });
  const byKind = groupBy(site, ({ id }) => id);
  const ofFiles = findingKinds.site.flatMap((kind): FindingRow[] => {
    const { id, doer } = kind;
    const about = 'checkFile' in kind ? 'file' : 'checkPage' in kind ? 'page' : 'service';
    const having = byKind.get(id);
    if (!having) return [];
    const [first] = having as [SiteFinding];
    return [
      {
        ...{ id, about, doer, count: sumOf(having, ({ count }) => count)! },
        pages: new Set(having.flatMap(({ pages }) => pages)).size,
        bytesPerVisit: sumOf(having, ({ perVisit }) => perVisit),
        timePerVisit: sumOf(having, ({ timePerVisit }) => timePerVisit),
        worst: first.group ?? first.url,
      },
    ];
  });
  const first =
    sort === 'pages' ? ofPages : sort === 'files' ? ofCount : sort === 'time' ? ofTime : ofBytes;
  return [...ofImages, ...ofFiles].sort(
    (a, b) =>
      first(b) - first(a) || ofBytes(b) - ofBytes(a) || ofTime(b) - ofTime(a) || b.pages - a.pages,
  );
}

/** The sum of what is known; `null` where nothing is. */
function sumOf(
  having: readonly SiteFinding[],
  valueOf: (finding: SiteFinding) => number | null,
): number | null {
  const known = having.flatMap((finding) => valueOf(finding) ?? []);
  return known.length > 0 ? known.reduce((sum, one) => sum + one, 0) : null;
}
