import { groupBy } from '../../base/group-by.js';
import { chosenWidth } from '../../slots/srcset.js';
import { askedWidth } from '../plan/own-choices.js';
import type { OwnChoice } from '../plan/own-choices.js';
import { leastBytes, successorOf } from '../refit-job.js';
import type { MadeJob } from '../refit-job.js';
import type { SystemWidths } from '../plan/system-widths.js';

/** Elements of one slot, on whatever pages, that need the same text for `sizes`. */
export interface SizesChange {
  readonly slot: string;
  readonly text: string;
  /** What they say now; `null` for nothing. */
  readonly declared: string | null;
  /** Page groups and pages. */
  readonly where: readonly string[];
  readonly pages: readonly string[];
  readonly selector: string;
  /** Addresses that the elements chose. */
  readonly urls: readonly string[];
  /** Bytes that an average visit saves by it, with the files that are there. */
  readonly saved: number;
}

/**
 * What mends images whose site offers several widths of them, in the order in which it is done: each step saves what the
 * steps before it leave, so that the savings add up.
 */
export interface OwnWidthsPlan {
  readonly sizes: readonly SizesChange[];
  /** Bytes that an average visit saves once the candidates are encoded again at their own width, in their own format. */
  readonly encodingSaved: number;
  /** Bytes that it saves beyond that if the server sends modern formats to browsers that accept them. */
  readonly formatSaved: number;
  /** The widths that the site should make as well; none if what it makes is enough. */
  readonly widths: readonly number[];
  /** Bytes that these save beyond everything else. */
  readonly widthsSaved: number;
  /** Candidates whose bytes nobody knows: the visits that would get them count as unchanged. */
  readonly unknown: readonly string[];
}

/** What is known of the files and the markup. */
export interface OwnWidthsFacts {
  /** The text of `sizes` that an element is to get; `null` where its own stays. */
  readonly sizesOf: (choice: OwnChoice) => string | null;
  /** The bytes of the file at an address; `undefined` where nobody knows them. */
  readonly bytesOf: (url: string) => number | undefined;
  /** What has been made of the file at an address. */
  readonly jobAt: (url: string) => MadeJob | undefined;
  readonly widths: SystemWidths;
}

/** One choice, with the address that it leads to once `sizes` are right. */
interface Changed {
  readonly choice: OwnChoice;
  readonly then: string;
}

export function planOwnWidths(
  choices: readonly OwnChoice[],
  { sizesOf, bytesOf, jobAt, widths }: OwnWidthsFacts,
): OwnWidthsPlan {
  const changes = new Map<string, { change: SizesChange; saved: number; choices: OwnChoice[] }>();
  const unknown = new Set<string>();
  const saved = { encoding: 0, format: 0, widths: 0 };
  const visits = groupBy(choices, ({ placed: { page, view }, picture }) =>
    [page, view, picture].join('\n'),
  );
  for (const some of visits.values()) {
    const all = some.map((choice): Changed => ({
      choice,
      then: urlAfter(choice, sizesOf(choice)),
    }));
    const [{ weight }] = some as [OwnChoice];
    const [now, then] = [
      [...new Set(some.map(({ placed }) => placed.url))],
      [...new Set(all.map((one) => one.then))],
    ];
    const missing = [...now, ...then].filter((url) => bytesOf(url) === undefined);
    for (const url of missing) unknown.add(url);
    const isKnown = missing.length === 0;
    const kept = isKnown ? then : now;
    const gain = isKnown ? sum(now, bytesOf) - sum(then, bytesOf) : 0;
    const changed = all.filter(({ choice }) => sizesOf(choice) !== null);
    for (const { choice } of changed)
      noteSizes(changes, choice, sizesOf(choice)!, (gain * weight) / changed.length);
    for (const url of kept) {
      const job = jobAt(url);
      const bytes = bytesOf(url) ?? 0;
      const own = (job && successorOf(job)?.bytes) ?? bytes;
      const best = job ? Math.min(own, leastBytes(job)) : own;
      saved.encoding += weight * (bytes - own);
      saved.format += weight * (own - best);
      const users = all.filter((one) => (isKnown ? one.then : one.choice.placed.url) === url);
      saved.widths +=
        weight * Math.max(0, best - bytesWithWidths(users, sizesOf, widths, jobAt, best));
    }
  }
  return {
    sizes: [...changes.values()].map(({ change, saved: bytes, choices: own }) => ({
      ...change,
      where: [...new Set(own.map(({ where }) => where))],
      pages: [...new Set(own.map(({ placed }) => placed.page))],
      urls: [...new Set(own.map(({ placed }) => placed.url))],
      saved: bytes,
    })),
    ...{ encodingSaved: saved.encoding, formatSaved: saved.format },
    ...{ widths: widths.all, widthsSaved: saved.widths, unknown: [...unknown].sort() },
  };
}

/** The address that an element chooses with a text for `sizes`. */
function urlAfter({ candidates, view, placed }: OwnChoice, sizes: string | null): string {
  if (sizes === null) return placed.url;
  const widths = candidates.map(({ width }) => width);
  const width = chosenWidth(widths, askedWidth(sizes, view));
  return candidates.find((one) => one.width === width)?.url ?? placed.url;
}

function noteSizes(
  changes: Map<string, { change: SizesChange; saved: number; choices: OwnChoice[] }>,
  choice: OwnChoice,
  text: string,
  saved: number,
): void {
  const { slot, placed } = choice;
  const key = `${slot}\n${text}`;
  const known = changes.get(key) ?? {
    change: {
      ...{ slot, text, selector: placed.selector, declared: placed.markup?.sizes ?? null },
      ...{ where: [], pages: [], urls: [], saved: 0 },
    },
    saved: 0,
    choices: [],
  };
  known.saved += saved;
  known.choices.push(choice);
  changes.set(key, known);
}

function sum(urls: readonly string[], bytesOf: (url: string) => number | undefined): number {
  return urls.reduce((all, url) => all + (bytesOf(url) ?? 0), 0);
}

/** The bytes of what the users of a file get when the site offers more widths; at least those of one of them. */
function bytesWithWidths(
  users: readonly Changed[],
  sizesOf: OwnWidthsFacts['sizesOf'],
  widths: SystemWidths,
  jobAt: OwnWidthsFacts['jobAt'],
  best: number,
): number {
  const files = new Map<number, number>();
  for (const { choice } of users) {
    const { candidates, view, placed } = choice;
    const { url } = candidates.at(-1)!;
    const planned = widths.of(url);
    const offered = [...candidates.map(({ width }) => width), ...planned].sort((a, b) => a - b);
    const sizes = sizesOf(choice) ?? placed.markup?.sizes ?? null;
    const width = chosenWidth(offered, askedWidth(sizes, view))!;
    const made = planned.includes(width) ? jobAt(url)?.variants : undefined;
    const bytes = (made ?? []).filter(({ size }) => size.width === width).map((one) => one.bytes);
    files.set(bytes.length > 0 ? width : -1, bytes.length > 0 ? Math.min(...bytes) : best);
  }
  return [...files.values()].reduce((all, bytes) => all + bytes, 0);
}
