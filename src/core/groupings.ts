import { hostOf, isInDocument } from './address.js';
import { familyKey } from './family-key.js';
import { portionOf } from './portion.js';
import type { Portion } from './portion.js';
import type { RankedImage, WeighedDelivery } from './ranked-image.js';
import { causes, noWaste } from './waste.js';

/** A delivery with the file that it is of. */
export interface RankedDelivery {
  readonly image: RankedImage;
  readonly delivery: WeighedDelivery;
}

/** What the waste can be summed up by. */
export const groupings = ['family', 'image', 'page', 'group', 'host', 'cause'] as const;
export type Grouping = (typeof groupings)[number];

/** One row of a grouping, and all that it is the sum of. */
export interface GroupRow {
  readonly key: string;
  readonly thirdParty: boolean;
  readonly perVisit: Portion;
  readonly deliveries: readonly RankedDelivery[];
}

/** What a row of `cause` is called that holds what was needed. */
export const neededKey = 'needed';

interface Context {
  /** Page groups by the addresses of pages. */
  readonly groups: ReadonlyMap<string, string | null>;
}

type KeyOf = (delivery: RankedDelivery, context: Context) => string;

const keys: Readonly<Record<Exclude<Grouping, 'cause'>, KeyOf>> = {
  image: ({ image }) => image.file.contentHash,
  family: familyKey,
  page: ({ delivery }) => delivery.page,
  group: ({ delivery }, { groups }) => groups.get(delivery.page) ?? delivery.page,
  host: ({ image, delivery }) => hostThatSent(image, delivery),
};

/** What stands for a host where the page itself brought the bytes. */
export const inDocument = 'in the document';

function hostThatSent(image: RankedImage, { page, deciding }: WeighedDelivery): string {
  const url = deciding?.url ?? image.url;
  return isInDocument(url) ? inDocument : hostOf(url) || hostOf(page);
}

/**
 * Sums up deliveries under what they have in common, most waste first. Whatever the grouping, the rows add up to the
 * same total.
 */
export function groupRows(
  deliveries: readonly RankedDelivery[],
  by: Grouping,
  context: Context,
): GroupRow[] {
  const rows = by === 'cause' ? causeRows(deliveries) : plainRows(deliveries, keys[by], context);
  return rows.sort(
    (a, b) => b.perVisit.wasteBytes - a.perVisit.wasteBytes || (a.key < b.key ? -1 : 1),
  );
}

function plainRows(
  deliveries: readonly RankedDelivery[],
  keyOf: KeyOf,
  context: Context,
): GroupRow[] {
  const groups = new Map<string, { thirdParty: boolean; key: string; parts: RankedDelivery[] }>();
  for (const one of deliveries) {
    const { thirdParty } = one.delivery;
    const key = keyOf(one, context);
    const place = thirdParty ? `third ${key}` : key;
    const group = groups.get(place);
    if (group) group.parts.push(one);
    else groups.set(place, { thirdParty, key, parts: [one] });
  }
  return [...groups.values()].map(({ key, thirdParty, parts }) => ({
    key,
    thirdParty,
    perVisit: portionOf(parts.map(({ delivery }) => delivery)),
    deliveries: parts,
  }));
}

/** One row for each cause, and one for what was needed: together they are all that was sent. */
function causeRows(deliveries: readonly RankedDelivery[]): GroupRow[] {
  const { neededBytes, unknownBytes, ...whole } = portionOf(
    deliveries.map(({ delivery }) => delivery),
  );
  const rows = causes
    .filter((cause) => whole.causes[cause] > 0)
    .map((cause): GroupRow => {
      const wasteBytes = whole.causes[cause];
      return {
        key: cause,
        thirdParty: false,
        perVisit: {
          sentBytes: wasteBytes,
          neededBytes: 0,
          wasteBytes,
          causes: { ...noWaste(), [cause]: wasteBytes },
          unknownBytes: 0,
        },
        deliveries: deliveries.filter(({ delivery }) => (delivery.waste?.causes[cause] ?? 0) > 0),
      };
    });
  const needed: GroupRow = {
    key: neededKey,
    thirdParty: false,
    perVisit: {
      sentBytes: neededBytes,
      neededBytes,
      wasteBytes: 0,
      causes: noWaste(),
      unknownBytes,
    },
    deliveries,
  };
  return [...rows, needed];
}
