import { familyOf } from './family.js';
import type { Family } from './family.js';
import { deliveriesOf } from './filter.js';
import type { ImageFilter } from './filter.js';
import { groupRows } from './groupings.js';
import type { GroupRow, Grouping } from './groupings.js';
import type { Policy } from './policy.js';
import { wholePortions } from './portion.js';
import type { Portion } from './portion.js';
import type { RankedImage } from './ranked-image.js';
import type { Ranking } from './ranking.js';
import type { SurveyHead, SurveyedPage } from './survey.js';

/** What rows can be sorted by, the largest first. */
export const orders = ['waste', 'sent', 'needed', 'bytes', 'files', 'pages'] as const;
export type Order = (typeof orders)[number];

/** One row of a ranking as it is shown. */
export interface RankRow {
  readonly key: string;
  readonly thirdParty: boolean;
  /** In whole bytes, which add up to the total. */
  readonly perVisit: Portion;
  /** Different image files and pages in it. */
  readonly files: number;
  readonly pages: number;
  /** The file that wastes the most of it; `null` where none wastes anything. */
  readonly worst: RankedImage | null;
  readonly family: Family | null;
}

/** A ranking of a survey, to be asked for rows. */
export interface RankSheet extends Ranking {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
}

/** How a ranking is looked at. */
export interface RankView {
  readonly by: Grouping;
  readonly sort: Order;
  readonly top: number;
  readonly filter: ImageFilter;
  readonly policy: Pick<Policy, 'widths'>;
}

export interface RankedRows {
  /** The first `top` rows of their kind: what the site's owner can change, before what third parties send. */
  readonly rows: readonly RankRow[];
  readonly thirdParty: readonly RankRow[];
  /** How many more there are. */
  readonly leftOut: number;
  /** The image files that are in any of them, most waste first. */
  readonly images: readonly RankedImage[];
  /** What all rows add up to. */
  readonly total: Portion;
  readonly thirdPartyTotal: Portion;
}

/** The rows of a ranking, in whole bytes. */
export function rowsOf(
  { images, pages }: Pick<RankSheet, 'images' | 'pages'>,
  { by, sort, top, filter, policy }: RankView,
): RankedRows {
  const groups = new Map(pages.map(({ url, group }) => [url, group]));
  const deliveries = deliveriesOf(images, filter);
  const grouped = groupRows(deliveries, by, { groups });
  const { rows: whole, total } = wholePortions(grouped.map(({ perVisit }) => perVisit));
  const counted = grouped.map((row, at) => ({ ...countsOf(row), row, perVisit: whole[at]! }));
  const value = valueOf[sort];
  const sorted = counted.sort((a, b) => value(b) - value(a));
  const [own, foreign] = [false, true].map((third) =>
    sorted.filter(({ row }) => row.thirdParty === third),
  );
  const shown = (some: typeof counted): RankRow[] =>
    some.slice(0, top).map(({ row, ...rest }) => ({
      key: row.key,
      thirdParty: row.thirdParty,
      ...rest,
      family: by === 'family' ? familyOf(row, policy.widths) : null,
    }));
  return {
    rows: shown(own!),
    thirdParty: shown(foreign!),
    leftOut: Math.max(0, own!.length - top) + Math.max(0, foreign!.length - top),
    images: [...new Set(deliveries.map(({ image }) => image))],
    total,
    thirdPartyTotal: wholePortions(foreign!.map(({ perVisit }) => perVisit)).total,
  };
}

type Counted = Pick<RankRow, 'perVisit' | 'files' | 'pages' | 'worst'>;

const valueOf: Readonly<Record<Order, (row: Counted) => number>> = {
  waste: ({ perVisit }) => perVisit.wasteBytes,
  sent: ({ perVisit }) => perVisit.sentBytes,
  needed: ({ perVisit }) => perVisit.neededBytes,
  bytes: ({ worst }) => worst?.file.bytes ?? 0,
  files: ({ files }) => files,
  pages: ({ pages }) => pages,
};

function countsOf({ deliveries }: GroupRow): Omit<Counted, 'perVisit'> {
  const waste = new Map<RankedImage, number>();
  const pages = new Set<string>();
  for (const { image, delivery } of deliveries) {
    pages.add(delivery.page);
    const bytes = (delivery.waste?.wasteBytes ?? 0) * delivery.weight;
    waste.set(image, (waste.get(image) ?? 0) + bytes);
  }
  let worst: RankedImage | null = null;
  let most = -1;
  for (const [image, bytes] of waste) if (bytes > most) [worst, most] = [image, bytes];
  return { files: waste.size, pages: pages.size, worst };
}
