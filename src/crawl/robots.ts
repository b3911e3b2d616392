import { setTimeout as after } from 'node:timers/promises';
import robotsParser from 'robots-parser';
import { messageOf } from '../core/base/errors.js';
import type { FetchedFile } from './fetch-file.js';

/** The product token of this tool in robots.txt. */
export const robotName = 'ZealousLynx';

/** At least 500 KiB of a robots.txt must be read (RFC 9309, section 2.5); nothing beyond that is. */
export const robotsLimit = 500 * 1024;

type Parse = (
  url: string,
  text: string,
) => { isAllowed(url: string, agent: string): boolean | undefined; getSitemaps(): string[] };

// The package is CommonJS: its function is the module itself.
const parse = robotsParser as unknown as Parse;

interface Rules {
  /** Returns why an address must not be visited, or nothing if it may be. */
  readonly refusal: (address: string) => string | undefined;
  readonly sitemaps: readonly string[];
}

/** How often a robots.txt that does not come is asked for again. */
const retries = 2;

/** The most sitemaps of one robots.txt that are known. */
const maxSitemaps = 1_000;

const noRules: Rules = { refusal: () => undefined, sitemaps: [] };

/** The robots.txt rules of a survey's servers (RFC 9309), each fetched once. */
export class Robots {
  readonly #fetch: (url: string) => Promise<FetchedFile>;
  readonly #rest: number;
  readonly #byOrigin = new Map<string, Promise<Rules>>();

  /**
   * @param fetch brings the text of a robots.txt
   * @param rest milliseconds before it is asked for again; each time twice as long
   */
  constructor(fetch: (url: string) => Promise<FetchedFile>, rest = 500) {
    this.#fetch = fetch;
    this.#rest = rest;
  }

  /** Why an address must not be visited; `undefined` if it may be. */
  async refusal(address: string): Promise<string | undefined> {
    return (await this.#rulesFor(address)).refusal(address);
  }

  /** The addresses of the sitemaps that the robots.txt of a host names. */
  async sitemaps(address: string): Promise<readonly string[]> {
    return (await this.#rulesFor(address)).sitemaps;
  }

  #rulesFor(address: string): Promise<Rules> {
    const { origin } = new URL(address);
    let rules = this.#byOrigin.get(origin);
    if (!rules) this.#byOrigin.set(origin, (rules = this.#load(origin)));
    return rules;
  }

  async #load(origin: string): Promise<Rules> {
    const url = `${origin}/robots.txt`;
    // Section 2.3.1.3: "unavailable" (4xx) allows everything; 2.3.1.4: "unreachable" (5xx, no response) nothing.
    const answer = await this.#patiently(url);
    if (typeof answer === 'string') {
      const reason = `robots.txt cannot be read (${answer}), so nothing may be visited`;
      return { refusal: () => reason, sitemaps: [] };
    }
    const { status } = answer;
    if (status < 200 || status >= 300) return noRules;
    const robots = parse(url, answer.body.toString('utf8'));

    return {
      refusal: (address) =>
        robots.isAllowed(address, robotName) === false ? 'forbidden by robots.txt' : undefined,
      sitemaps: robots.getSitemaps().slice(0, maxSitemaps),
    };
  }

  /** The response, or in words why there is none: what fails for a moment is asked for again. */
  async #patiently(url: string): Promise<FetchedFile | string> {
    for (let attempt = 0; ; attempt++) {
      const answer = await this.#fetch(url).catch(messageOf);
      if (typeof answer !== 'string' && answer.status < 500) return answer;
      if (attempt >= retries)
        return typeof answer === 'string' ? answer : `it returned ${answer.status}`;
      await after(this.#rest * 2 ** attempt);
    }
  }
}
