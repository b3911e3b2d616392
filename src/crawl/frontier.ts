import { addressPattern, applyQueryRule } from '../core/address-pattern.js';
import type { AddressPattern, QueryRule } from '../core/address-pattern.js';
import { pageAddress } from '../core/address.js';
import type { DuePage, SkippedAddress } from '../core/survey.js';

/** Which pages are handed out. */
export interface Scope {
  /** How many pages at the most. */
  readonly pages: number;
  /** How many links away from a start at the most; left out, any number. */
  readonly depth?: number | undefined;
  /** Only addresses that one of these patterns means; none of them: all. Starts are always in. */
  readonly include?: readonly string[];
  /** No addresses that one of these patterns means. */
  readonly exclude?: readonly string[];
  readonly query?: QueryRule;
}

/** Files that are linked to and are no pages. */
const notPages =
  /\.(?:jpe?g|png|gif|webp|avif|svg|ico|bmp|tiff?|pdf|zip|gz|rar|7z|mp[34]|webm|ogg|wav|mov|avi|docx?|xlsx?|pptx?|css|js|json|xml|rss|woff2?|ttf|ics|exe|dmg)$/i;

/** The most addresses that are kept to say that they were passed over. */
const maxSkipped = 10_000;

/** What an earlier run of the same survey left behind. */
export interface Leftover {
  /** Every address that was found, whatever became of it. */
  readonly known: readonly string[];
  /** Pages that were found and not visited. */
  readonly due: readonly DuePage[];
  /** How many pages were visited. */
  readonly visited: number;
}

/** What was found since it was last asked for. */
export interface Discovery {
  readonly due: readonly DuePage[];
  readonly skipped: readonly SkippedAddress[];
}

/**
 * The pages that are known and not yet visited, nearest to a start first. Every page is handed out
 * once, under one form of its address.
 */
export class Frontier {
  readonly #hosts = new Set<string>();
  readonly #known = new Set<string>();
  readonly #due: DuePage[] = [];
  readonly #scope: Scope;
  readonly #include: readonly AddressPattern[];
  readonly #exclude: readonly AddressPattern[];
  #found: { due: DuePage[]; skipped: SkippedAddress[] } = { due: [], skipped: [] };
  #skipped = 0;
  #handedOut = 0;

  /** @param leftover goes on where an earlier run stopped */
  constructor(starts: readonly string[], scope: Scope, leftover?: Leftover) {
    this.#scope = scope;
    this.#include = (scope.include ?? []).map(addressPattern);
    this.#exclude = (scope.exclude ?? []).map(addressPattern);
    const urls = starts.flatMap((start) => pageAddress(start) ?? []);
    for (const url of urls) this.#hosts.add(new URL(url).host);
    if (!leftover) {
      for (const url of urls) this.#push(url, 0);
      return;
    }
    for (const url of leftover.known) this.#known.add(url);
    this.#due.push(...leftover.due);
    this.#handedOut = leftover.visited;
  }

  /** Takes in the links of a page. */
  add(links: readonly string[], depth: number): void {
    for (const link of links) {
      const address = pageAddress(link);
      if (!address || !this.inScope(address)) continue;
      const url = applyQueryRule(address, this.#scope.query ?? 'keep');
      if (this.#known.has(url)) continue;
      const reason = this.#reasonAgainst(url, depth);
      if (reason) this.#skip(url, reason);
      else this.#push(url, depth);
    }
  }

  #reasonAgainst(url: string, depth: number): string | undefined {
    const kind = notPages.exec(new URL(url).pathname)?.[0];
    if (kind) return `a ${kind} file, not a page`;
    if (depth > (this.#scope.depth ?? Infinity))
      return `more than ${this.#scope.depth} links away from a start`;
    if (this.#include.length > 0 && !this.#include.some((means) => means(url)))
      return 'not among the included addresses';
    if (this.#exclude.some((means) => means(url))) return 'excluded';
    return undefined;
  }

  /** Marks the address that a page ended at, so that it is not visited again under that name. */
  reached(url: string): boolean {
    const final = pageAddress(url);
    if (!final || this.#known.has(final)) return false;
    this.#known.add(final);
    return true;
  }

  /** Whether a page is on a host that is surveyed. */
  inScope(url: string): boolean {
    return URL.canParse(url) && this.#hosts.has(new URL(url).host);
  }

  /** The next page, or `undefined` when there is none for now. */
  next(): DuePage | undefined {
    if (this.#handedOut >= this.#scope.pages) return undefined;
    const due = this.#due.shift();
    if (due) this.#handedOut++;
    return due;
  }

  /** Takes back that a page was handed out: it turned out to be none of this survey. */
  forgo(): void {
    this.#handedOut--;
  }

  /** How many pages wait that may still be handed out. */
  get waiting(): number {
    return Math.min(this.#due.length, this.#scope.pages - this.#handedOut);
  }

  /** What was found since the last call: pages that are due, and addresses that are not. */
  takeFound(): Discovery {
    const found = this.#found;
    this.#found = { due: [], skipped: [] };
    return found;
  }

  /** Pages that are left when no more are handed out. */
  get leftOut(): SkippedAddress[] {
    if (this.#handedOut < this.#scope.pages) return [];
    const reason = `more than the ${this.#scope.pages} pages allowed`;
    return this.#due.slice(0, maxSkipped).map(({ url }) => ({ url, reason }));
  }

  #push(url: string, depth: number): void {
    if (this.#known.has(url)) return;
    this.#known.add(url);
    this.#due.push({ url, depth });
    this.#found.due.push({ url, depth });
  }

  #skip(url: string, reason: string): void {
    if (this.#skipped++ >= maxSkipped) return;
    this.#known.add(url);
    this.#found.skipped.push({ url, reason });
  }
}
