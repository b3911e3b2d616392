import { hostOf, isInDocument } from './address.js';
import { slotOf } from './family-key.js';
import type { Delivery } from './ledger.js';
import { PortionSum, portionOf } from './portion.js';
import type { Portion } from './portion.js';
import type { Ranking } from './ranking.js';
import type { SurveyFacts } from './survey.js';
import { Dictionary } from './survey-tables.js';
import { causes, noWaste } from './waste.js';

/** What the waste can be summed up by. */
export const groupings = ['family', 'image', 'page', 'group', 'host', 'cause'] as const;
export type Grouping = (typeof groupings)[number];

/** One row of a grouping, and all that it is the sum of. */
export interface GroupRow {
  readonly key: string;
  readonly thirdParty: boolean;
  readonly perVisit: Portion;
  readonly deliveries: readonly Delivery[];
}

/** What a row of `cause` is called that holds what was needed. */
export const neededKey = 'needed';

/** What stands for a host where the page itself brought the bytes. */
export const inDocument = 'in the document';

/** Says of each delivery under which number it is summed up, and what stands behind a number. */
interface Keys {
  readonly of: (delivery: Delivery) => number;
  readonly words: (key: number) => string;
}

const keysBy: Readonly<Record<Exclude<Grouping, 'cause'>, (facts: SurveyFacts) => Keys>> = {
  image: ({ files }) => ({
    of: ({ file }) => file,
    words: (key) => files[key]!.contentHash,
  }),
  page: (facts) => byPage(facts, (page) => page),
  group: (facts) => {
    const groups = groupsOf(facts);
    return byPage(facts, (page) => groups.get(page) ?? page);
  },
  host: byHost,
  family: byFamily,
};

function groupsOf({ pages }: SurveyFacts): Map<string, string | null> {
  return new Map(pages.map(({ url, group }) => [url, group]));
}

/** Numbers visits by something that follows from their pages. */
function byPage({ visits }: SurveyFacts, nameOf: (page: string) => string): Keys {
  const names = new Dictionary<string, string>((name) => name);
  const places = visits.map(({ page }) => names.placeOf(nameOf(page)));
  return { of: ({ visit }) => places[visit]!, words: (key) => names.values[key]! };
}

function byHost({ placements, responses, files }: SurveyFacts): Keys {
  const hosts = new Dictionary<string, string>((host) => host);
  const hostAt = (url: string) => (isInDocument(url) ? inDocument : hostOf(url));
  const { addresses } = placements.lists;
  const ofText = addresses.map(() => -1);
  const ofFile = files.map(() => -1);
  const { answer, file } = responses.columns;
  file.forEach((at, row) => {
    if (at >= 0 && ofFile[at]! < 0)
      ofFile[at] = hosts.placeOf(hostAt(responses.answers[answer[row]!]!.url));
  });
  const textHost = (text: number) =>
    ofText[text]! < 0 ? (ofText[text] = hosts.placeOf(hostAt(addresses[text]!))) : ofText[text]!;
  return {
    of: ({ deciding, file: at }) =>
      deciding < 0 ? ofFile[at]! : textHost(placements.columns.url[deciding]!),
    words: (key) => hosts.values[key] ?? '',
  };
}

/** A family is a slot in a page group: its place and its selector without the places of elements among their like. */
function byFamily(facts: SurveyFacts): Keys {
  const { placements } = facts;
  const groups = groupsOf(facts);
  const where = byPage(facts, (page) => groups.get(page) ?? page);
  const slots = new Dictionary<string, string>((slot) => slot);
  const ofShape = placements.lists.shapes.map(({ kind, selector }) =>
    slots.placeOf(`${kind}\n${slotOf(selector)}`),
  );
  const nowhere = slots.placeOf('\n');
  const count = slots.values.length;
  return {
    of: (delivery) => {
      const row = delivery.deciding < 0 ? delivery.placed : delivery.deciding;
      const slot = row < 0 ? nowhere : ofShape[placements.columns.shape[row]!]!;
      return where.of(delivery) * count + slot;
    },
    words: (key) => `${where.words(Math.floor(key / count))}\n${slots.values[key % count]!}`,
  };
}

/**
 * Sums up deliveries under what they have in common, most waste first. Whatever the grouping, the rows add up to the
 * same total.
 */
export function groupRows(
  { facts }: Pick<Ranking, 'facts'>,
  deliveries: readonly Delivery[],
  by: Grouping,
): GroupRow[] {
  const rows = by === 'cause' ? causeRows(deliveries) : plainRows(deliveries, keysBy[by](facts));
  return rows.sort(
    (a, b) => b.perVisit.wasteBytes - a.perVisit.wasteBytes || (a.key < b.key ? -1 : 1),
  );
}

function plainRows(deliveries: readonly Delivery[], keys: Keys): GroupRow[] {
  const rows = new Map<number, { sum: PortionSum; members: Delivery[] }>();
  for (const delivery of deliveries) {
    // What third parties send is summed up apart, under a number of its own.
    const place = keys.of(delivery) * 2 + Number(delivery.judged.thirdParty);
    let row = rows.get(place);
    if (!row) rows.set(place, (row = { sum: new PortionSum(), members: [] }));
    row.sum.add(delivery.judged.amounts, delivery.weight);
    row.members.push(delivery);
  }
  return [...rows].map(([place, { sum, members }]) => ({
    key: keys.words(Math.floor(place / 2)),
    thirdParty: place % 2 === 1,
    perVisit: sum.done(),
    deliveries: members,
  }));
}

/** One row for each cause, and one for what was needed: together they are all that was sent. */
function causeRows(deliveries: readonly Delivery[]): GroupRow[] {
  const { neededBytes, unknownBytes, ...whole } = portionOf(deliveries);
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
        deliveries: deliveries.filter(({ judged }) => (judged.waste?.causes[cause] ?? 0) > 0),
      };
    });
  const perVisit = {
    sentBytes: neededBytes,
    neededBytes,
    wasteBytes: 0,
    causes: noWaste(),
    unknownBytes,
  };
  return [...rows, { key: neededKey, thirdParty: false, perVisit, deliveries }];
}
