import { originOf } from '../core/address/address.js';
import { partyOf } from './third-party.js';

/** The hosts, or registrable domains, whose pages are surveyed. */
export class SurveyedHosts {
  readonly #places = new Set<string>();
  /** Those of them that were named: a list of a million addresses has few. */
  readonly #origins = new Set<string>();
  readonly #within: 'host' | 'domain';

  constructor(within: 'host' | 'domain') {
    this.#within = within;
  }

  /** Adds the host, or domain, of an address. */
  add(url: string): void {
    const origin = originOf(url);
    if (this.#origins.has(origin)) return;
    this.#origins.add(origin);
    this.#places.add(this.#placeOf(url));
  }

  /** Whether the page at an address is on one of them. */
  have(url: string): boolean {
    return URL.canParse(url) && this.#places.has(this.#placeOf(url));
  }

  #placeOf(url: string): string {
    return this.#within === 'domain' ? partyOf(url) : new URL(url).host;
  }
}
