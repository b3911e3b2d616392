import { ExactSums } from '../base/exact-sums.js';
import { amountsOf } from '../waste/portion.js';
import { chooseRows, portionOfPage } from './chosen-rows.js';
import { familyOf } from './family.js';
import type { Family } from './family.js';
import { deliveriesOf } from './filter.js';
import type { ImageFilter } from './filter.js';
import { groupRows } from './groupings.js';
import type { GroupRow, Grouping } from './groupings.js';
import type { Policy } from '../policy/policy.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';
import type { Portion } from '../waste/portion.js';
import type { RankedImage } from './ranked-image.js';
import { pageShares } from './page-shares.js';
import { rankedPictures } from './ranked-picture.js';
import type { Ranking, RankTotals } from './ranking.js';
import type { RowTime } from './row-times.js';
import type { SortKey } from './sort-keys.js';
import { totalsOfFiles } from './sums/file-sums.js';
import type { SurveyHead, SurveyedPage } from '../survey/survey.js';

/** One row of a ranking as it is shown. */
export interface RankRow {
  readonly key: string;
  readonly thirdParty: boolean;
  /** In whole bytes, which add up to the total. */
  readonly perVisit: Portion;
  /** Of an average visit to the page; `null` where a row is no page. */
  readonly ofPage: Portion | null;
  /** The image files in it, the one that wastes the most of it first; of sums, those that are listed. */
  readonly images: readonly RankedImage[];
  /** Different image files and pages in it. */
  readonly files: number;
  readonly pages: number;
  /** The first of its image files; `null` where there is none. */
  readonly worst: RankedImage | null;
  readonly family: Family | null;
  /** What timed pages would be spared; left out where nobody asks for it. */
  readonly time?: RowTime;
}

/** A row with the deliveries that are summed up in it. */
export interface LedgerRow extends RankRow {
  readonly rows: DeliveryRows;
}

/** A survey as a ranking tells of it. */
export interface RankedSurvey extends Pick<Ranking, 'weights' | 'unmatchedRules'> {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
}

/** A ranking of a survey, to be asked for rows. */
export interface RankResult extends Ranking, RankedSurvey {}

/** The grouping, order and filters of a ranking. */
export interface RankQuery {
  readonly by: Grouping;
  readonly sort: SortKey;
  readonly top: number;
  readonly filter: ImageFilter;
  readonly policy: Pick<Policy, 'widths'>;
  /** What timed pages would be spared by a row; needed to sort by time. */
  readonly timeOf?: (row: Pick<GroupRow, 'rows'>) => RowTime;
}

/** All image files in the rows of a ranking. */
export interface RankedFiles {
  readonly count: number;
  /** How many pictures they are. */
  readonly pictures: number;
  /** Each file counted once. */
  readonly totals: RankTotals;
  /** Those that were fetched, but placed nowhere. */
  readonly unplaced: number;
  readonly unjudged: {
    readonly count: number;
    /** The first of them. */
    readonly first: readonly RankedImage[];
  };
}

export interface RankedRows<Row extends RankRow = RankRow> {
  /** The first `top` rows of their kind: what the site's owner can change, before what third parties send. */
  readonly rows: readonly Row[];
  readonly thirdParty: readonly Row[];
  /** The number left out. */
  readonly leftOut: number;
  readonly files: RankedFiles;
  /** The image files, most waste first; by image, in the order of the rows. Of sums, the first of them. */
  readonly images: readonly RankedImage[];
  /** The content hash by which the picture is known that an image is one file of. */
  readonly pictureOf: (image: RankedImage) => string;
  /** The totals of all rows. */
  readonly total: Portion;
  readonly thirdPartyTotal: Portion;
}

/** Files that cannot be judged are named up to this many. */
export const mostUnjudged = 3;

/** The rows of a ranking, in whole bytes. */
export function rowsOf(
  ranking: Pick<Ranking, 'ledger' | 'images'>,
  { by, sort, top, filter, policy, timeOf }: RankQuery,
): RankedRows<LedgerRow> {
  const { ledger, images } = ranking;
  const deliveries = deliveriesOf(ranking, filter);
  const grouped = groupRows(ranking, deliveries, by);
  const byFile = new Map(images.map((image) => [image.fileIndex, image]));
  // Counting takes its time: rows that are not shown are counted only where the order depends on it.
  const count = lazily((row: number) => countsOf(grouped[row]!, ranking, byFile));
  const time = timeOf && lazily((row: number) => timeOf(grouped[row]!));
  const chosen = chooseRows(
    {
      thirdParty: grouped.map(({ thirdParty }) => Number(thirdParty)),
      amounts: Float64Array.from(grouped.flatMap(({ perVisit }) => amountsOf(perVisit))),
    },
    {
      ...{ sort, top },
      valuesOf: (row) => ({ ...count(row), bytes: count(row).worst?.file.bytes ?? 0 }),
      timeOf: time && ((row) => paintAndLoad(time(row))),
    },
  );
  const share = by === 'page' ? pageShares(ledger) : undefined;
  const shown = (row: number): LedgerRow => {
    const { key, thirdParty, rows, perVisit } = grouped[row]!;
    return {
      ...{ key, thirdParty, rows, perVisit: chosen.wholeOf(row) },
      ofPage: share ? portionOfPage(perVisit, share(key)) : null,
      ...count(row),
      ...(time && { time: time(row) }),
      family: by === 'family' ? familyOf(grouped[row]!, ranking, policy.widths) : null,
    };
  };
  const looked = new Uint8Array(ledger.facts.files.length);
  for (const row of deliveries) looked[ledger.file[row]!] = 1;
  const found = images.filter(({ fileIndex }) => looked[fileIndex] === 1);
  const listed =
    by === 'image' ? [...new Set(chosen.order.flatMap((row) => count(row).images))] : found;
  const { total, thirdPartyTotal, leftOut } = chosen;
  return {
    ...{ rows: chosen.rows.map(shown), thirdParty: chosen.thirdParty.map(shown), leftOut },
    ...{ images: listed, ...aboutFiles(found, ledger), total, thirdPartyTotal },
  };
}

/** What is told of image files together, and the picture of each. */
function aboutFiles(
  images: readonly RankedImage[],
  { facts }: Ledger,
): Pick<RankedRows, 'files' | 'pictureOf'> {
  const pictures = rankedPictures(images, facts.pictures);
  let ids: ReadonlyMap<RankedImage, string> | undefined;
  const unjudged = images.filter(({ isJudged }) => !isJudged);
  return {
    files: {
      count: images.length,
      pictures: pictures.length,
      get totals() {
        return totalsOfFiles(images);
      },
      unplaced: images.filter(({ isPlaced }) => !isPlaced).length,
      unjudged: { count: unjudged.length, first: unjudged.slice(0, mostUnjudged) },
    },
    pictureOf: (image) => {
      ids ??= new Map(pictures.flatMap(({ id, images: some }) => some.map((one) => [one, id])));
      return ids.get(image) ?? image.file.contentHash;
    },
  };
}

/** What a row is sorted by in time: the paint that visitors see first of all, and then the load. */
function paintAndLoad({ largestContentfulPaint, load }: RowTime): number {
  // A millisecond of the paint counts as much as a thousand of the load.
  return Math.round(largestContentfulPaint ?? 0) * 1_000 + (load ?? 0);
}

function countsOf(
  { rows }: GroupRow,
  { ledger }: Pick<Ranking, 'ledger'>,
  images: ReadonlyMap<number, RankedImage>,
): Pick<RankRow, 'images' | 'files' | 'pages' | 'worst'> {
  const wasted: { readonly file: number; readonly bytes: number }[] = [];
  const seen = new Set<number>();
  const sum = new ExactSums(1);
  // The deliveries of one file come one after the other.
  for (let from = 0, to = 0; from < rows.length; from = to) {
    const file = ledger.file[rows[from]!]!;
    for (; to < rows.length && ledger.file[rows[to]!] === file; to++) {
      const row = rows[to]!;
      const visit = ledger.visit[row]!;
      const { waste } = ledger.verdicts[ledger.verdictIndex[row]!]!;
      seen.add(visit);
      sum.add(0, (waste?.wasteBytes ?? 0) * ledger.weights[visit]!);
    }
    wasted.push({ file, bytes: sum.at(0) });
    sum.clear(0);
  }
  const pages = new Set<string>();
  for (const visit of seen) pages.add(ledger.facts.visits[visit]!.page);
  const inOrder = wasted
    .sort((a, b) => b.bytes - a.bytes)
    .flatMap(({ file }) => images.get(file) ?? []);
  return { images: inOrder, files: wasted.length, pages: pages.size, worst: inOrder[0] ?? null };
}

/** Works something out once. */
function lazily<Key, Value>(valueFor: (key: Key) => Value): (key: Key) => Value {
  const known = new Map<Key, Value>();
  return (key) => {
    const before = known.get(key);
    if (before !== undefined) return before;
    const value = valueFor(key);
    known.set(key, value);
    return value;
  };
}
