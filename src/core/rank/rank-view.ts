import { familyOf } from './family.js';
import type { Family } from './family.js';
import { deliveriesOf } from './filter.js';
import type { ImageFilter } from './filter.js';
import { groupRows } from './groupings.js';
import type { GroupRow, Grouping } from './groupings.js';
import type { Policy } from '../policy/policy.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';
import { scaled, wholePortions } from '../waste/portion.js';
import type { Portion } from '../waste/portion.js';
import type { RankedImage } from './ranked-image.js';
import type { Ranking } from './ranking.js';
import type { RowTime } from './row-times.js';
import type { SurveyHead, SurveyedPage } from '../survey/survey.js';

/** What rows can be sorted by, the largest first. */
export const sortKeys = ['waste', 'sent', 'needed', 'bytes', 'files', 'pages', 'time'] as const;
export type SortKey = (typeof sortKeys)[number];

/** One row of a ranking as it is shown. */
export interface RankRow {
  readonly key: string;
  readonly thirdParty: boolean;
  /** In whole bytes, which add up to the total. */
  readonly perVisit: Portion;
  /** Of an average visit to the page; `null` where a row is no page. */
  readonly ofPage: Portion | null;
  /** The image files in it, the one that wastes the most of it first. */
  readonly images: readonly RankedImage[];
  /** Different image files and pages in it. */
  readonly files: number;
  readonly pages: number;
  /** What is summed up in it. */
  readonly rows: DeliveryRows;
  /** The first of its image files; `null` where there is none. */
  readonly worst: RankedImage | null;
  readonly family: Family | null;
  /** What timed pages would be spared; left out where nobody asks for it. */
  readonly time?: RowTime;
}

/** A ranking of a survey, to be asked for rows. */
export interface RankResult extends Ranking {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
}

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

export interface RankedRows {
  /** The first `top` rows of their kind: what the site's owner can change, before what third parties send. */
  readonly rows: readonly RankRow[];
  readonly thirdParty: readonly RankRow[];
  /** The number left out. */
  readonly leftOut: number;
  /** The image files that are in any row, most waste first; by image, in the order of the rows. */
  readonly images: readonly RankedImage[];
  /** The totals of all rows. */
  readonly total: Portion;
  readonly thirdPartyTotal: Portion;
}

const fewRows = 3;

/** The rows of a ranking, in whole bytes. */
export function rowsOf(
  ranking: Pick<Ranking, 'ledger' | 'images'>,
  { by, sort, top, filter, policy, timeOf }: RankQuery,
): RankedRows {
  const { ledger, images } = ranking;
  const deliveries = deliveriesOf(ranking, filter);
  const grouped = groupRows(ranking, deliveries, by);
  const { rows: whole, total } = wholePortions(grouped.map(({ perVisit }) => perVisit));
  const byFile = new Map(images.map((image) => [image.fileIndex, image]));
  // Counting takes its time: rows that are not shown are counted only where the order depends on it.
  const count = lazily((row: GroupRow) => countsOf(row, ranking, byFile));
  const time = timeOf && lazily(timeOf);
  const ofPage = pagePortions(ledger);
  const wholeRows = grouped.map((row, at) => ({ row, perVisit: whole[at]! }));
  const value = valueOf[sort];
  const sorted = wholeRows.toSorted(
    (a, b) =>
      (time && sort === 'time' ? paintAndLoad(time(b.row)) - paintAndLoad(time(a.row)) : 0) ||
      value(b, () => count(b.row)) - value(a, () => count(a.row)),
  );
  const [own, foreign] = [false, true].map((third) =>
    sorted.filter(({ row }) => row.thirdParty === third),
  );
  const shown = (some: typeof sorted, most: number): RankRow[] =>
    some.slice(0, most).map(({ row, perVisit }) => ({
      key: row.key,
      thirdParty: row.thirdParty,
      rows: row.rows,
      perVisit,
      ofPage: by === 'page' ? ofPage(row) : null,
      ...count(row),
      ...(time && { time: time(row) }),
      family: by === 'family' ? familyOf(row, ranking, policy.widths) : null,
    }));
  const rows = shown(own!, top);
  // What nobody here can change takes a few lines, unless there is room for all.
  const thirdParty = shown(foreign!, Math.max(fewRows, top - own!.length));
  const looked = new Uint8Array(ledger.facts.files.length);
  for (const row of deliveries) looked[ledger.file[row]!] = 1;
  return {
    rows,
    thirdParty,
    leftOut: sorted.length - rows.length - thirdParty.length,
    images:
      by === 'image'
        ? [...new Set(sorted.flatMap(({ row }) => count(row).images))]
        : images.filter(({ fileIndex }) => looked[fileIndex] === 1),
    total,
    thirdPartyTotal: wholePortions(foreign!.map(({ perVisit }) => perVisit)).total,
  };
}

/** What an average visit to the page of a row is sent of it: its part of an average visit, divided by the share of its visits. */
function pagePortions({ facts: { visits }, weights }: Ledger): (row: GroupRow) => Portion {
  const shares = new Map<string, number>();
  visits.forEach(({ page }, at) => shares.set(page, (shares.get(page) ?? 0) + weights[at]!));
  return ({ key, perVisit }) => {
    const share = shares.get(key) ?? 0;
    return wholePortions([share > 0 ? scaled(perVisit, 1 / share) : perVisit]).total;
  };
}

/** What a row is sorted by in time: the paint that visitors see first of all, and then the load. */
function paintAndLoad({ largestContentfulPaint, load }: RowTime): number {
  // A millisecond of the paint counts as much as a thousand of the load.
  return Math.round(largestContentfulPaint ?? 0) * 1_000 + (load ?? 0);
}

type Counts = Pick<RankRow, 'images' | 'files' | 'pages' | 'worst'>;

type ValueOf = (row: Pick<RankRow, 'perVisit'>, counts: () => Counts) => number;

const valueOf: Readonly<Record<SortKey, ValueOf>> = {
  waste: ({ perVisit }) => perVisit.wasteBytes,
  sent: ({ perVisit }) => perVisit.sentBytes,
  needed: ({ perVisit }) => perVisit.neededBytes,
  bytes: (_, counts) => counts().worst?.file.bytes ?? 0,
  files: (_, counts) => counts().files,
  pages: (_, counts) => counts().pages,
  // Where two rows spare the same time.
  time: ({ perVisit }) => perVisit.wasteBytes,
};

function countsOf(
  { rows }: GroupRow,
  { ledger }: Pick<Ranking, 'ledger'>,
  images: ReadonlyMap<number, RankedImage>,
): Counts {
  const wasted = new Map<number, number>();
  const seen = new Uint8Array(ledger.facts.visits.length);
  // The deliveries of one file come one after the other.
  for (let from = 0, to = 0; from < rows.length; from = to) {
    const file = ledger.file[rows[from]!]!;
    let bytes = wasted.get(file) ?? 0;
    for (; to < rows.length && ledger.file[rows[to]!] === file; to++) {
      const row = rows[to]!;
      const visit = ledger.visit[row]!;
      const { waste } = ledger.verdicts[ledger.verdictIndex[row]!]!;
      seen[visit] = 1;
      bytes += (waste?.wasteBytes ?? 0) * ledger.weights[visit]!;
    }
    wasted.set(file, bytes);
  }
  const pages = new Set(
    ledger.facts.visits.filter((_, visit) => seen[visit] === 1).map(({ page }) => page),
  );
  const inOrder = [...wasted]
    .sort(([, a], [, b]) => b - a)
    .flatMap(([file]) => images.get(file) ?? []);
  return { images: inOrder, files: wasted.size, pages: pages.size, worst: inOrder[0] ?? null };
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
