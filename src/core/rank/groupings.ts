import { hostOf, isInDocument } from '../address/address.js';
import { slotOf } from '../slots/family-key.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';
import type { Portion } from '../waste/portion.js';
import type { Ranking } from './ranking.js';
import type { SurveyFacts } from '../survey/survey.js';
import { rowsByIndex, Dictionary } from '../survey/survey-tables.js';
import { causes, noWaste } from '../waste/waste.js';

/** What the waste can be summed up by. */
export const groupings = ['family', 'image', 'page', 'group', 'host', 'cause'] as const;
export type Grouping = (typeof groupings)[number];

/** One row of a grouping, and all that it is the sum of. */
export interface GroupRow {
  readonly key: string;
  readonly thirdParty: boolean;
  readonly perVisit: Portion;
  /** Of the ledger, in its order. */
  readonly rows: DeliveryRows;
}

/** The name of the row of `cause` with the needed bytes. */
export const neededKey = 'needed';

/** The word for the host if the bytes are in the page itself. */
export const inDocument = 'in the document';

/** Gives the group number of each delivery, and the key of each number. */
interface Keys {
  readonly of: (row: number) => number;
  readonly words: (key: number) => string;
}

const keysBy: Readonly<
  Record<Exclude<Grouping, 'cause'>, (facts: SurveyFacts, ledger: Ledger) => Keys>
> = {
  image: ({ files, pictures }, { file }) => ({
    of: (row) => pictures.ofFile[file[row]!]!,
    words: (key) => files[pictures.files[key]![0]!]!.contentHash,
  }),
  page: (facts, ledger) => byPage(facts, ledger, (page) => page),
  group: (facts, ledger) => {
    const groups = groupsOf(facts);
    return byPage(facts, ledger, (page) => groups.get(page) ?? page);
  },
  host: byHost,
  family: byFamily,
};

function groupsOf({ pages }: SurveyFacts): Map<string, string | null> {
  return new Map(pages.map(({ url, group }) => [url, group]));
}

/** Numbers visits by something that follows from their pages. */
function byPage(
  { visits }: SurveyFacts,
  { visit }: Ledger,
  nameOf: (page: string) => string,
): Keys {
  const names = new Dictionary<string, string>((name) => name);
  const numberOf = visits.map(({ page }) => names.indexOf(nameOf(page)));
  return { of: (row) => numberOf[visit[row]!]!, words: (key) => names.values[key]! };
}

function byHost({ placements, responses, files }: SurveyFacts, ledger: Ledger): Keys {
  const hosts = new Dictionary<string, string>((host) => host);
  const hostAt = (url: string) => (isInDocument(url) ? inDocument : hostOf(url));
  const { addresses } = placements.lists;
  const ofText = addresses.map(() => -1);
  const ofFile = files.map(() => -1);
  const { answer, file } = responses.columns;
  file.forEach((at, row) => {
    if (at >= 0 && ofFile[at]! < 0)
      ofFile[at] = hosts.indexOf(hostAt(responses.answers[answer[row]!]!.url));
  });
  const textHost = (text: number) =>
    ofText[text]! < 0 ? (ofText[text] = hosts.indexOf(hostAt(addresses[text]!))) : ofText[text]!;
  return {
    of: (row) => {
      const placement = ledger.deciding[row]!;
      return placement < 0
        ? ofFile[ledger.file[row]!]!
        : textHost(placements.columns.url[placement]!);
    },
    words: (key) => hosts.values[key] ?? '',
  };
}

/** A family is a slot in a page group: its place and its selector without the numbers of elements among their like. */
function byFamily(facts: SurveyFacts, ledger: Ledger): Keys {
  const { placements } = facts;
  const groups = groupsOf(facts);
  const where = byPage(facts, ledger, (page) => groups.get(page) ?? page);
  const slots = new Dictionary<string, string>((slot) => slot);
  const ofShape = placements.lists.shapes.map(({ kind, selector }) =>
    slots.indexOf(`${kind}\n${slotOf(selector)}`),
  );
  const nowhere = slots.indexOf('\n');
  const count = slots.values.length;
  return {
    of: (row) => {
      const deciding = ledger.deciding[row]!;
      const placement = deciding < 0 ? ledger.placed[row]! : deciding;
      const slot = placement < 0 ? nowhere : ofShape[placements.columns.shape[placement]!]!;
      return where.of(row) * count + slot;
    },
    words: (key) => `${where.words(Math.floor(key / count))}\n${slots.values[key % count]!}`,
  };
}

/**
 * Sums up deliveries under what they have in common, most waste first. Whatever the grouping, the rows add up to the
 * same total.
 */
export function groupRows(
  { ledger }: Pick<Ranking, 'ledger'>,
  rows: DeliveryRows,
  by: Grouping,
): GroupRow[] {
  const groups =
    by === 'cause'
      ? causeRows(ledger, rows)
      : plainRows(ledger, rows, keysBy[by](ledger.facts, ledger));
  return groups.sort(
    (a, b) => b.perVisit.wasteBytes - a.perVisit.wasteBytes || (a.key < b.key ? -1 : 1),
  );
}

function plainRows(ledger: Ledger, rows: DeliveryRows, keys: Keys): GroupRow[] {
  // What third parties send is summed up apart, under a number of its own.
  const numbers = new Dictionary<number, number>((place) => place);
  const groupOf = rows.map((row) => {
    const { thirdParty } = ledger.verdicts[ledger.verdictIndex[row]!]!;
    return numbers.indexOf(keys.of(row) * 2 + Number(thirdParty));
  });
  const members = rowsByIndex(groupOf, numbers.values.length);
  return numbers.values.map((place, group) => {
    const [from, to] = [members.starts[group], members.starts[group + 1]];
    const own = members.rows.subarray(from, to).map((at) => rows[at]!);
    return {
      key: keys.words(Math.floor(place / 2)),
      thirdParty: place % 2 === 1,
      perVisit: ledger.sum(own),
      rows: own,
    };
  });
}

/** One row for each cause, and one for what was needed: together they are all that was sent. */
function causeRows(ledger: Ledger, rows: DeliveryRows): GroupRow[] {
  const { neededBytes, unknownBytes, ...whole } = ledger.sum(rows);
  const { verdicts, verdictIndex } = ledger;
  const groups = causes
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
        rows: rows.filter((row) => (verdicts[verdictIndex[row]!]!.waste?.causes[cause] ?? 0) > 0),
      };
    });
  const perVisit = {
    sentBytes: neededBytes,
    neededBytes,
    wasteBytes: 0,
    causes: noWaste(),
    unknownBytes,
  };
  return [...groups, { key: neededKey, thirdParty: false, perVisit, rows }];
}
