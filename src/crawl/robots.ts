import robotsParser from 'robots-parser';
import type { FetchedText } from './fetch-text.js';

/** The name that rules in a robots.txt address this tool by. */
export const robotName = 'ZealousLynx';

/** At least 500 KiB of a robots.txt have to be read (RFC 9309, section 2.5); what is beyond is not. */
export const robotsLimit = 500 * 1024;

type Parse = (
  url: string,
  text: string,
) => { isAllowed(url: string, agent: string): boolean | undefined };

// The package is CommonJS: its function is the module itself.
const parse = robotsParser as unknown as Parse;

/** Says of an address why it must not be visited, or nothing when it may. */
type Rules = (address: string) => string | undefined;

/** What the servers of a survey allow robots to visit (RFC 9309), each asked once. */
export class Robots {
  readonly #fetch: (url: string) => Promise<FetchedText>;
  readonly #byOrigin = new Map<string, Promise<Rules>>();

  /** @param fetch brings the text of a robots.txt */
  constructor(fetch: (url: string) => Promise<FetchedText>) {
    this.#fetch = fetch;
  }

  /** Why an address must not be visited; `undefined` when it may. */
  async refusal(address: string): Promise<string | undefined> {
    const { origin } = new URL(address);
    let rules = this.#byOrigin.get(origin);
    if (!rules) this.#byOrigin.set(origin, (rules = this.#load(origin)));
    return (await rules)(address);
  }

  async #load(origin: string): Promise<Rules> {
    const url = `${origin}/robots.txt`;
    let answer: FetchedText;
    try {
      answer = await this.#fetch(url);
    } catch {
      // A server that does not answer will not answer the browser either, which says so better.
      return () => undefined;
    }
    // Section 2.3.1.3: "unavailable" (4xx) allows everything; 2.3.1.4: "unreachable" (5xx) nothing.
    if (answer.status >= 500)
      return () => `robots.txt cannot be read (it answered ${answer.status}), which forbids all`;
    if (answer.status < 200 || answer.status >= 300) return () => undefined;
    const robots = parse(url, answer.text);
    return (address) =>
      robots.isAllowed(address, robotName) === false ? 'robots.txt forbids it' : undefined;
  }
}
