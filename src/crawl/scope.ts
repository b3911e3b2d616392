import { addressMatcher } from '../core/address/address-matcher.js';
import type { AddressMatcher, QueryRule } from '../core/address/address-matcher.js';
import { addressPattern, repeatsItself } from '../core/address/address-pattern.js';

/** Which pages are handed out. */
export interface Scope {
  /** The most pages. */
  readonly pages: number;
  /** The most links away from a start; without it, any number. */
  readonly depth?: number | undefined;
  /** Only addresses that match one of these patterns; all if there are none. Starts are always included. */
  readonly include?: readonly string[];
  /** No addresses that match one of these patterns. */
  readonly exclude?: readonly string[];
  readonly query?: QueryRule;
  /** Links are followed to the hosts of the starts, or to all of their registrable domains. */
  readonly within?: 'host' | 'domain';
  /** The most pages found by links whose addresses have one shape; without it, any number. */
  readonly perGroup?: number | undefined;
  /** Ignores `rel=canonical`, and that two addresses may show one document: each address counts as itself. */
  readonly ignoreCanonical?: boolean;
}

/** Files that are linked to but are not pages. */
const notPages =
  /\.(?:jpe?g|png|gif|webp|avif|svg|ico|bmp|tiff?|pdf|zip|gz|rar|7z|mp[34]|webm|ogg|wav|mov|avi|docx?|xlsx?|pptx?|css|js|json|xml|rss|woff2?|ttf|ics|exe|dmg)$/i;

/** Tells which of the pages that links lead to are wanted. */
export class ScopeRules {
  readonly #scope: Scope;
  readonly #include: readonly AddressMatcher[];
  readonly #exclude: readonly AddressMatcher[];
  /** The number of pages found by links, by the shape of their addresses. */
  readonly #shapes = new Map<string, number>();

  constructor(scope: Scope) {
    this.#scope = scope;
    this.#include = (scope.include ?? []).map(addressMatcher);
    this.#exclude = (scope.exclude ?? []).map(addressMatcher);
  }

  /** Why a page is not wanted; `undefined` if it is. */
  reasonAgainst(url: string, depth: number): string | undefined {
    const { perGroup = Infinity, depth: deepest = Infinity } = this.#scope;
    const kind = notPages.exec(new URL(url).pathname)?.[0];
    if (kind) return `a link to a ${kind} file`;
    if (depth > deepest) return `more than ${deepest} links from a start`;
    if (this.#include.length > 0 && !this.#include.some((means) => means(url)))
      return 'does not match --include';
    if (this.#exclude.some((means) => means(url))) return 'matches --exclude';
    if (repeatsItself(url)) return 'its path repeats itself';
    const shape = addressPattern(url);
    if ((this.#shapes.get(shape) ?? 0) >= perGroup)
      return `more than ${perGroup} addresses with the pattern ${shape}`;
    return undefined;
  }

  /** Counts a page that was found by a link. */
  count(url: string): void {
    const shape = addressPattern(url);
    this.#shapes.set(shape, (this.#shapes.get(shape) ?? 0) + 1);
  }
}
