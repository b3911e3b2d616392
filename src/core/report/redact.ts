/** Addresses in any text. */
const addresses = /\bhttps?:\/\/[^\s"'<>`]+/gi;

/** Query strings behind paths that stand without their host. */
const queries = /(\/[\w\-./%~@:*+,]*)\?[^\s"'<>`]*/g;

/** Takes hosts and query strings out of texts, each host by the same name everywhere. */
export class Redaction {
  readonly #names = new Map<string, string>();
  #pattern: RegExp | undefined;

  /** @param own the host of the site, which is called `site` */
  constructor(own: string) {
    this.#names.set(own, 'site');
  }

  /** Learns the hosts of a document. */
  learn(document: unknown): void {
    walk(document, (text) => {
      for (const [address] of text.matchAll(addresses)) {
        const host = hostIn(address);
        if (host && !this.#names.has(host)) this.#names.set(host, `host-${this.#names.size}`);
      }
    });
    // Longer names first: one may be the end of another.
    const names = [...this.#names.keys()].sort((a, b) => b.length - a.length);
    const escaped = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
    this.#pattern = new RegExp(`(?<![\\w.-])(?:${escaped.join('|')})(?![\\w-])`, 'gi');
  }

  /** A document of which `learn` knows the hosts, without them; lists called `headers` are emptied. */
  apply<Value>(value: Value): Value {
    if (typeof value === 'string') return this.#text(value) as Value;
    if (Array.isArray(value)) return value.map((one: unknown) => this.apply(one)) as Value;
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value).map(([name, one]) => [
        this.#text(name),
        name === 'headers' ? (Array.isArray(one) ? [] : {}) : this.apply(one as unknown),
      ]),
    ) as Value;
  }

  #text(text: string): string {
    const bare = text
      .replace(addresses, (address) => address.replace(/[?#].*$/, ''))
      .replace(queries, '$1');
    return this.#pattern
      ? bare.replace(this.#pattern, (host) => this.#names.get(host.toLowerCase()) ?? host)
      : bare;
  }
}

function hostIn(address: string): string {
  return URL.canParse(address) ? new URL(address).host : '';
}

function walk(value: unknown, see: (text: string) => void): void {
  if (typeof value === 'string') see(value);
  else if (Array.isArray(value)) for (const one of value) walk(one, see);
  else if (typeof value === 'object' && value !== null)
    for (const [name, one] of Object.entries(value)) {
      see(name);
      walk(one, see);
    }
}
