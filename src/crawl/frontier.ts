import { applyQueryRule } from '../core/address/address-matcher.js';
import { areKin } from '../core/address/kin-address.js';
import { pageAddress } from '../core/address/address.js';
import { withoutTokens } from '../core/address/address-token.js';
import type { DuePage, SkippedAddress } from '../core/survey/survey.js';
import { PageQueue } from './page-queue.js';
import { ScopeRules } from './scope.js';
import type { Scope } from './scope.js';
import { SurveyedHosts } from './surveyed-hosts.js';

/** A page that a crawl starts from, its address in its one form. */
export type Seed = Pick<DuePage, 'url' | 'visits'>;

/**
 * Loads that may go to addresses that are no pages of their own (redirects, canonical addresses, documents seen before), for
 * each page that is wanted and at least: a site can make up such addresses for ever.
 */
const spareLoads = { perPage: 4, least: 40 };

/** The most addresses that are kept to say that they were skipped. */
const maxSkipped = 10_000;

/** What an earlier run of the same survey left behind. */
export interface Leftover {
  /** Every page found, visited or not. */
  readonly found: readonly DuePage[];
  /** Addresses of pages after redirects. */
  readonly reached: readonly string[];
  /** Addresses that were skipped. */
  readonly skipped: readonly string[];
  /** Pages that were found and not visited. */
  readonly due: readonly DuePage[];
  /** The number of pages visited. */
  readonly visited: number;
  /** What the pages visited show, as digests. */
  readonly documents: readonly { readonly document: string; readonly url: string }[];
}

/** What was found since the last call. */
export interface Discovery {
  readonly due: readonly DuePage[];
  readonly skipped: readonly SkippedAddress[];
}

/**
 * The pages that are known and not yet visited. Every page is handed out once, under one form of its address.
 */
export class Frontier {
  readonly #hosts: SurveyedHosts;
  /** Pages that are due or were visited. */
  readonly #known = new Set<string>();
  readonly #skipped = new Set<string>();
  readonly #passed = new Set<string>();
  readonly #due = new PageQueue();
  readonly #scope: Scope;
  readonly #rules: ScopeRules;
  /** The first address of each document, by its digest. */
  readonly #documents = new Map<string, string>();
  /** Pages with the canonical address of another page. */
  readonly #folded = new Set<string>();
  #found: { due: DuePage[]; skipped: SkippedAddress[] } = { due: [], skipped: [] };
  #handedOut = 0;
  #forgone = 0;

  /**
   * @param within addresses whose hosts, or domains, are surveyed
   * @param leftover goes on where an earlier run stopped
   */
  constructor(within: readonly string[], scope: Scope, leftover?: Leftover) {
    this.#scope = scope;
    this.#rules = new ScopeRules(scope);
    this.#hosts = new SurveyedHosts(scope.within ?? 'host');
    for (const url of within) this.widen(url);
    if (!leftover) return;
    for (const url of leftover.reached) this.#known.add(url);
    for (const url of leftover.skipped) this.#skipped.add(url);
    for (const { url, depth } of leftover.found) {
      this.#known.add(url);
      if (depth > 0) this.#rules.count(url);
    }
    const due = new Set(leftover.due.map(({ url }) => url));
    for (const { url } of leftover.found) if (!due.has(url)) this.#due.note(url);
    for (const one of leftover.due) this.#due.add(one);
    for (const { document, url } of leftover.documents) this.#documents.set(document, url);
    this.#handedOut = leftover.visited;
  }

  /** Adds pages that a person named: they are visited whatever the patterns say. */
  begin(seeds: readonly Seed[]): void {
    for (const { url, visits } of seeds) {
      this.widen(url);
      this.#push({ url: this.#formFor(url), depth: 0, visits });
    }
  }

  /** Adds the links of a page or of a sitemap. */
  add(links: readonly string[], depth: number): void {
    for (const link of links) {
      const url = this.formOf(link);
      if (!url || !this.inScope(url) || this.#known.has(url) || this.#skipped.has(url)) continue;
      const reason = this.#rules.reasonAgainst(url, depth);
      if (reason) this.#skip(url, reason);
      else {
        this.#rules.count(url);
        this.#push({ url, depth, visits: null });
      }
    }
  }

  /** The normalised address of a link; `undefined` if it is not one. */
  formOf(link: string): string | undefined {
    const address = pageAddress(link);
    return address && this.#formFor(address);
  }

  #formFor(address: string): string {
    return applyQueryRule(withoutTokens(address), this.#scope.query ?? 'keep');
  }

  /** Marks the address that a page ended at, so that it is not visited again under that name. */
  reached(url: string): boolean {
    const final = this.formOf(url);
    if (!final || this.#known.has(final)) return false;
    this.#known.add(final);
    return true;
  }

  /**
   * Believes a page that says that it is another one, which is then due in its place.
   *
   * @returns whether it is to be believed: the other is one of this survey and does not say the like
   */
  fold(due: DuePage, canonical: string): boolean {
    const other = this.formOf(canonical);
    if (this.#scope.ignoreCanonical || due.depth === 0) return false;
    if (!other || other === due.url || !this.inScope(other) || this.#folded.has(other))
      return false;
    this.add([other], due.depth);
    if (!this.#known.has(other)) return false;
    this.#folded.add(due.url);
    return true;
  }

  /** Leaves out links of a page, each with the reason; another page may still lead there. */
  pass(links: readonly string[], reason: string): void {
    for (const link of links) {
      const url = this.formOf(link);
      if (!url || this.#known.has(url) || this.#passed.has(url)) continue;
      if (this.#passed.size >= maxSkipped) return;
      this.#passed.add(url);
      this.#found.skipped.push({ url, reason });
    }
  }

  /**
   * The address that showed the same document before; `undefined` where this is the first, or a person named it. Of documents
   * with little in them the addresses must be kin as well.
   *
   * @param document digest of what it shows; empty for nothing, with a question mark in front where that is little
   */
  twinOf(due: DuePage, document: string): string | undefined {
    if (document === '' || this.#scope.ignoreCanonical) return undefined;
    const first = this.#documents.get(document);
    if (first === undefined || first === due.url) this.#documents.set(document, due.url);
    if (first === undefined || first === due.url || due.depth === 0) return undefined;
    return document.startsWith('?') && !areKin(first, due.url) ? undefined : first;
  }

  /** Whether more pages are known than may be handed out: which of them are is worth a thought. */
  get isScarce(): boolean {
    return this.#due.length > this.#scope.pages - this.#handedOut;
  }

  /** Learns of which templates the pages are that were visited, by address. */
  learnGroups(groups: ReadonlyMap<string, string>): void {
    this.#due.learn(groups);
  }

  /** Whether a page is one of the hosts, or domains, that are surveyed. */
  inScope(url: string): boolean {
    return this.#hosts.have(url);
  }

  /** Adds the host, or domain, of an address. */
  widen(url: string): void {
    this.#hosts.add(url);
  }

  /** The next page, or `undefined` if there is none for now. */
  next(): DuePage | undefined {
    if (this.#handedOut >= this.#scope.pages) return undefined;
    const due = this.#due.next();
    if (due) this.#handedOut++;
    return due;
  }

  /** Returns a page that was handed out: it does not belong to this survey. From some number on, it counts as one. */
  forgo(): void {
    this.#forgone++;
    if (this.#forgone <= this.#mostForgone) this.#handedOut--;
  }

  get #mostForgone(): number {
    return Math.max(spareLoads.least, spareLoads.perPage * this.#scope.pages);
  }

  /** The number of pages waiting that may still be handed out. */
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
    const left: SkippedAddress[] = [];
    for (const { due, pattern, taken, all } of this.#due.left()) {
      if (left.length >= maxSkipped) break;
      const most =
        this.#forgone > this.#mostForgone
          ? `more than ${this.#mostForgone} addresses were loaded that are no pages of their own`
          : `more than ${this.#scope.pages} pages`;
      const part =
        pattern === '' ? '' : `; ${taken} of ${all} with the pattern ${pattern} were surveyed`;
      left.push({ url: due.url, reason: most + part });
    }
    return left;
  }

  #push(due: DuePage): void {
    if (this.#known.has(due.url)) return;
    this.#known.add(due.url);
    this.#due.add(due);
    this.#found.due.push(due);
  }

  #skip(url: string, reason: string): void {
    if (this.#skipped.size >= maxSkipped) return;
    this.#skipped.add(url);
    this.#found.skipped.push({ url, reason });
  }
}
