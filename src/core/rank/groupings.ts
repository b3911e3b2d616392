import { hostOf, isInDocument } from '../address/address.js';
import { slotOf } from '../slots/family-key.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';
import { PortionSums } from '../waste/portion.js';
import type { Portion } from '../waste/portion.js';
import type { Ranking } from './ranking.js';
import type { SurveyFacts } from '../survey/survey.js';
import { rowsByIndex, Dictionary } from '../survey/survey-tables.js';
import { causes } from '../waste/waste.js';

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
  group: (facts, ledger) => byPage(facts, ledger, (page) => ledger.groups.get(page) ?? page),
  host: byHost,
  family: byFamily,
};

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
  const where = byPage(facts, ledger, (page) => ledger.groups.get(page) ?? page);
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

/** The rows of a grouping in no order, and what each is the sum of. */
export interface GroupedRows {
  readonly keys: readonly string[];
  /** 1 for what third parties send, which is summed up apart. */
  readonly thirdParty: Uint8Array;
  readonly portions: PortionSums;
  /** The deliveries of a row, in the order of the ledger. */
  readonly rowsOf: (row: number) => DeliveryRows;
}

/** Sums up deliveries under what they have in common. */
export function groupDeliveries(ledger: Ledger, rows: DeliveryRows, by: Grouping): GroupedRows {
  return by === 'cause'
    ? causeRows(ledger, rows)
    : plainRows(ledger, rows, keysBy[by](ledger.facts, ledger));
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
  const { keys, thirdParty, portions, rowsOf } = groupDeliveries(ledger, rows, by);
  return keys
    .map((key, row): GroupRow => ({
      ...{ key, thirdParty: thirdParty[row] === 1 },
      ...{ perVisit: portions.at(row), rows: rowsOf(row) },
    }))
    .filter((row) => isTold(by, row))
    .sort(byWaste);
}

/** Whether a row is one: causes that waste nothing in an average visit are not told. */
export function isTold(
  by: Grouping,
  { key, perVisit }: Pick<GroupRow, 'key' | 'perVisit'>,
): boolean {
  return by !== 'cause' || key === neededKey || perVisit.wasteBytes > 0;
}

/** The order of rows: most waste first, then by their keys, third parties last. */
export function byWaste(a: Omit<GroupRow, 'rows'>, b: Omit<GroupRow, 'rows'>): number {
  return (
    b.perVisit.wasteBytes - a.perVisit.wasteBytes ||
    (a.key === b.key ? Number(a.thirdParty) - Number(b.thirdParty) : a.key < b.key ? -1 : 1)
  );
}

function plainRows(ledger: Ledger, rows: DeliveryRows, keys: Keys): GroupedRows {
  // What third parties send is summed up apart, under a number of its own.
  const numbers = new Dictionary<number, number>((place) => place);
  const groupOf = rows.map((row) => {
    const { thirdParty } = ledger.verdicts[ledger.verdictIndex[row]!]!;
    return numbers.indexOf(keys.of(row) * 2 + Number(thirdParty));
  });
  const places = numbers.values;
  const portions = new PortionSums(places.length);
  rows.forEach((row, at) => ledger.addTo(portions, groupOf[at]!, row));
  const members = rowsByIndex(groupOf, places.length);
  return {
    keys: places.map((place) => keys.words(Math.floor(place / 2))),
    thirdParty: Uint8Array.from(places, (place) => place % 2),
    portions,
    rowsOf: (row) =>
      members.rows.subarray(members.starts[row], members.starts[row + 1]).map((at) => rows[at]!),
  };
}

/** One row for each cause, and one for what was needed: together they are all that was sent. */
function causeRows(ledger: Ledger, rows: DeliveryRows): GroupedRows {
  const whole = new PortionSums(1);
  for (const row of rows) ledger.addTo(whole, 0, row);
  const { verdicts, verdictIndex } = ledger;
  const wasted = new Set(rows.map((row) => verdictIndex[row]!));
  const found = causes.filter((cause) =>
    [...wasted].some((verdict) => (verdicts[verdict]!.waste?.causes[cause] ?? 0) > 0),
  );
  const portions = new PortionSums(found.length + 1);
  found.forEach((cause, row) => portions.addCause(row, whole, cause));
  portions.addNeeded(found.length, whole);
  return {
    keys: [...found, neededKey],
    thirdParty: new Uint8Array(found.length + 1),
    portions,
    rowsOf: (row) => {
      const cause = found[row];
      if (cause === undefined) return rows;
      return rows.filter((one) => (verdicts[verdictIndex[one]!]!.waste?.causes[cause] ?? 0) > 0);
    },
  };
}
