import { pageAddress } from '../core/address.js';
import type { SkippedAddress } from '../core/survey.js';

/** A page that is to be visited. */
export interface Due {
  readonly url: string;
  /** Links followed from a start. */
  readonly depth: number;
}

/** Files that are linked to and are no pages. */
const notPages =
  /\.(?:jpe?g|png|gif|webp|avif|svg|ico|bmp|tiff?|pdf|zip|gz|rar|7z|mp[34]|webm|ogg|wav|mov|avi|docx?|xlsx?|pptx?|css|js|json|xml|rss|woff2?|ttf|ics|exe|dmg)$/i;

/** The most addresses that are kept to say that they were passed over. */
const maxSkipped = 10_000;

/**
 * The pages that are known and not yet visited, nearest to a start first. Every page is handed out
 * once, under one form of its address.
 */
export class Frontier {
  readonly #hosts = new Set<string>();
  readonly #known = new Set<string>();
  readonly #due: Due[] = [];
  readonly #skipped = new Map<string, string>();
  readonly #most: number;
  #handedOut = 0;

  /** @param most how many pages are handed out at the most */
  constructor(starts: readonly string[], most: number) {
    this.#most = most;
    for (const start of starts) {
      const url = pageAddress(start);
      if (!url) continue;
      this.#hosts.add(new URL(url).host);
      this.#push(url, 0);
    }
  }

  /** Takes in the links of a page. */
  add(links: readonly string[], depth: number): void {
    for (const link of links) {
      const url = pageAddress(link);
      if (!url || this.#known.has(url)) continue;
      const { host, pathname } = new URL(url);
      if (!this.#hosts.has(host)) continue;
      const kind = notPages.exec(pathname)?.[0];
      if (kind) this.#skip(url, `a ${kind} file, not a page`);
      else this.#push(url, depth);
    }
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
  next(): Due | undefined {
    if (this.#handedOut >= this.#most) return undefined;
    const due = this.#due.shift();
    if (due) this.#handedOut++;
    return due;
  }

  /** How many pages wait that may still be handed out. */
  get waiting(): number {
    return Math.min(this.#due.length, this.#most - this.#handedOut);
  }

  /** What was found and not visited, and why. */
  get skipped(): SkippedAddress[] {
    const left = this.#handedOut >= this.#most ? this.#due : [];
    return [
      ...[...this.#skipped].map(([url, reason]) => ({ url, reason })),
      ...left.map(({ url }) => ({ url, reason: `more than the ${this.#most} pages allowed` })),
    ];
  }

  #push(url: string, depth: number): void {
    if (this.#known.has(url)) return;
    this.#known.add(url);
    this.#due.push({ url, depth });
  }

  #skip(url: string, reason: string): void {
    if (this.#skipped.size < maxSkipped) this.#skipped.set(url, reason);
  }
}
