import { min } from 'simple-statistics';
import { isInDocument } from '../address/address.js';
import { harConditions } from './har-conditions.js';
import type { Conditions } from '../visitors/conditions.js';
import { contentOf } from './har-content.js';
import type { HarContent } from './har-content.js';
import { requestOf } from './har-entry.js';
import type { Note } from './har-entry.js';
import { amountOf, listOf, untrustedObject, textOf } from '../base/untrusted.js';
import type { UntrustedObject } from '../base/untrusted.js';
import { markerNames } from './markers.js';
import type { Markers } from './markers.js';
import { record } from '../base/record.js';
import type { PageRequest } from './request.js';
import type { Run } from './session.js';

/** One page of a HAR file, with its requests as one load. */
export interface HarPage {
  /** The address of its document, or its title in the file. */
  readonly page: string;
  /** `null` if the format has no place for them. */
  readonly conditions: Conditions | null;
  readonly run: Run;
  /** What the file holds of the body of each request of the run, in the same order. */
  readonly contents: readonly HarContent[];
}

/** The content of a HAR file. */
export interface HarReading {
  readonly pages: readonly HarPage[];
  /** The problems of the file and how they were corrected, each once, with the number of entries. */
  readonly defects: readonly { readonly words: string; readonly entries: number }[];
}

/** Milliseconds that a page may begin before its first request; clocks of two zones differ by more. */
const longestLead = 600_000;

/** The most entries that are read. */
const maxEntries = 100_000;

/**
 * Reads a HAR file, of whatever origin. What the format leaves open or a program has got wrong is put right where
 * that can be done, and told: phases that are missing or negative, a time that disagrees with them, entries of no
 * page.
 *
 * Source: HTTP Archive (HAR) format, version 1.2.
 *
 * @param document what the file holds, parsed
 * @param isThirdParty whether an address is another party's than the page
 * @throws TypeError saying what is missing, when it is no HAR.
 */
export function readHar(
  document: unknown,
  isThirdParty: (address: string, page: string) => boolean,
): HarReading {
  const { log } = untrustedObject(document);
  if (typeof log !== 'object' || log === null) throw new TypeError('it has no "log"');
  const { entries, pages, browser } = untrustedObject(log);
  if (!Array.isArray(entries)) throw new TypeError('its "log" has no list of "entries"');
  const defects = new Map<string, number>();
  const note: Note = (words) => defects.set(words, (defects.get(words) ?? 0) + 1);
  if (entries.length > maxEntries) note(`more than ${maxEntries} entries: the rest is ignored`);
  const told = new Map(
    listOf(pages)
      .map(untrustedObject)
      .map((page) => [textOf(page['id']), page]),
  );
  const byPage = new Map<string, UntrustedObject[]>();
  for (const entry of entries.slice(0, maxEntries).map(untrustedObject)) {
    const address = textOf(untrustedObject(entry['request'])['url']);
    if (isInDocument(address)) {
      note('bytes that a document brings itself (data:, blob:): no request, ignored');
      continue;
    }
    if (address === '') {
      note('no address: ignored');
      continue;
    }
    const id = pageOf(entry, told, note);
    const together = byPage.get(id);
    if (together) together.push(entry);
    else byPage.set(id, [entry]);
  }
  return {
    pages: [...byPage].map(([id, own]) =>
      readPage(untrustedObject(told.get(id)), own, browserName(browser), isThirdParty, note),
    ),
    defects: [...defects].map(([words, count]) => ({ words, entries: count })),
  };
}

/** The page that an entry belongs to. If the file has only one page, or none, all entries belong together. */
function pageOf(
  entry: UntrustedObject,
  told: ReadonlyMap<string, UntrustedObject>,
  note: Note,
): string {
  const id = textOf(entry['pageref']);
  if (told.has(id)) return id;
  if (told.size > 0) note('belongs to no page of the file: assigned to the first');
  return told.keys().next().value ?? '';
}

function readPage(
  told: UntrustedObject,
  entries: readonly UntrustedObject[],
  browser: string,
  isThirdParty: (address: string, page: string) => boolean,
  note: Note,
): HarPage {
  const begins = entries.map((entry) => momentOf(entry['startedDateTime']));
  const known = begins.filter((begin) => begin !== null);
  const earliest = known.length > 0 ? min(known) : 0;
  const zero = beginningOf(told, earliest, note);
  const startOf = (entry: UntrustedObject, index: number): number => {
    const begin = begins[index] ?? null;
    if (begin === null) note('no start time: set to that of the page');
    return amountOf(entry['_start']) ?? (begin === null ? 0 : begin - zero);
  };
  const first = entries[Math.max(0, begins.indexOf(earliest))];
  const page = pageAddress(told, first);
  const read = entries
    .map((entry, index) => ({
      request: requestOf(entry, startOf(entry, index), (url) => isThirdParty(url, page), note),
      content: contentOf(entry),
    }))
    .sort((a, b) => a.request.start - b.request.start);
  const requests = read.map(({ request }) => request);
  return {
    page,
    conditions: harConditions(told, browser),
    run: runOf(page, zero, told, requests),
    contents: read.map(({ content }) => content),
  };
}

/** The start of the page: as recorded, unless that is after its first request or long before it. */
function beginningOf(told: UntrustedObject, earliest: number, note: Note): number {
  const declared = momentOf(told['startedDateTime']);
  if (declared === null || declared > earliest) return earliest;
  if (earliest - declared <= longestLead) return declared;
  note('page starts long before its requests: set to the first of them');
  return earliest;
}

function runOf(
  page: string,
  zero: number,
  told: UntrustedObject,
  requests: readonly PageRequest[],
): Run {
  const timings = untrustedObject(told['pageTimings']);
  const markers = untrustedObject(told['_markers']);
  const document = requests.find(({ type, redirectsTo }) => type === 'html' && !redirectsTo);
  return {
    startedAt: new Date(zero).toISOString(),
    finalUrl: document?.url ?? page,
    status: document?.status ?? null,
    markers: {
      ...(record(markerNames, (name) => amountOf(markers[name])) satisfies Markers),
      domContentLoaded: amountOf(markers['domContentLoaded']) ?? amountOf(timings['onContentLoad']),
      load: amountOf(markers['load']) ?? amountOf(timings['onLoad']),
      ttfb: amountOf(markers['ttfb']) ?? firstByteOf(document),
    },
    ...largestOf(told),
    ...(Array.isArray(told['_firstScreen']) && {
      firstScreen: listOf(told['_firstScreen']).map(textOf),
    }),
    requests,
    failure: null,
  };
}

function largestOf(told: UntrustedObject): Pick<Run, 'largest'> {
  if (told['_largest'] === undefined) return {};
  const { selector, url } = untrustedObject(told['_largest']);
  if (typeof selector !== 'string') return { largest: null };
  return { largest: { selector: textOf(selector), url: textOf(url) || null } };
}

function firstByteOf(document: PageRequest | undefined): number | null {
  return document?.end == null ? null : document.end - document.phases.receive;
}

function pageAddress(told: UntrustedObject, first: UntrustedObject | undefined): string {
  const title = textOf(told['title']);
  if (URL.canParse(title)) return title;
  return textOf(untrustedObject(first?.['request'])['url']) || title || 'a page without a title';
}

function browserName(browser: unknown): string {
  const { name, version } = untrustedObject(browser);
  return `${textOf(name)} ${textOf(version)}`.trim();
}

/** A moment in milliseconds since the epoch; `null` if it is missing or cannot be read. */
function momentOf(value: unknown): number | null {
  const moment = Date.parse(textOf(value));
  return Number.isFinite(moment) ? moment : null;
}
