import { lookup } from 'node:dns/promises';
import type { LookupAddress } from 'node:dns';
import { isIP } from 'node:net';
import { insideWords } from './inside-address.js';
import { mappedPlace, placeIn } from './host-map.js';
import type { HostMap, Place } from './host-map.js';

/** Where a person wants the browser to go. */
export interface ReachOptions {
  /** What was given to begin with. */
  readonly starts: readonly string[];
  /** Hosts that are found elsewhere than the name service says. */
  readonly hosts: HostMap;
  /** Those of them that stand for folders, which are served from this machine. */
  readonly served?: ReadonlySet<string>;
  /** Hosts that pages may use wherever they are; `*.` stands for all subdomains. */
  readonly allowed?: readonly string[];
}

/** The most hosts that are remembered of each kind. */
const maxNoted = 10_000;

interface Lookup {
  readonly at: number;
  /** Milliseconds that it took. */
  time: number;
  readonly addresses: Promise<LookupAddress[]>;
}

/** Milliseconds after which a host is looked up again: the next load of a page pays for it as the first one did. */
const lookupRest = 2_000;

/** The most starts whose hosts are looked up. */
const maxLookups = 100;

/** A host that no page may have the browser connect to. */
export class RefusedError extends Error {}

/**
 * Which machines may be connected to. A page of the public internet must not lead into the network of whoever surveys it:
 * what it names is looked up, and no connection is made to loopback, private, link-local or reserved addresses (RFC 6890).
 * The address that was checked is the one that is connected to, so a name that changes its address in between leads nowhere.
 *
 * Pages that are themselves inside may use what is there, too.
 */
export class Reach {
  readonly hosts: HostMap;
  /** Whether connections are checked; if not, all starts are inside. */
  readonly isGuarded: boolean;
  /** The hosts of starts that are inside themselves; those of folders are not among them. */
  readonly inside: readonly string[];
  readonly #allowed: readonly string[];
  /** Why, by `host:port`. */
  readonly #refusals = new Map<string, string>();
  readonly #lookups = new Map<string, Lookup>();
  /** Where hosts were found. */
  readonly #addresses = new Map<string, string>();

  private constructor(
    hosts: HostMap,
    isGuarded: boolean,
    inside: readonly string[],
    allowed: readonly string[],
  ) {
    this.hosts = hosts;
    this.isGuarded = isGuarded;
    this.inside = inside;
    this.#allowed = allowed;
  }

  /** Looks up where the starts are. */
  static async of({ starts, hosts, served, allowed = [] }: ReachOptions): Promise<Reach> {
    const names = [...new Set(starts.map((url) => new URL(url).hostname))];
    const places = await Promise.all(
      names.slice(0, maxLookups).map(async (name) => {
        if (served?.has(name)) return true;
        // A mapped host counts as the public one that it stands for.
        return mappedPlace(hosts, name, 0) === undefined && (await isInside(name));
      }),
    );
    const inside = names.filter((_, at) => places[at]);
    const isOpen = names.length > 0 && inside.length === names.length;
    const named = inside.filter((name) => !served?.has(name));
    return new Reach(hosts, !isOpen, named, [...allowed, ...inside]);
  }

  /** A reach for what a person has vouched for as a whole. */
  static open(hosts: HostMap = {}): Reach {
    return new Reach(hosts, false, [], []);
  }

  /**
   * Where to connect to for a host.
   *
   * @throws RefusedError when that is no place for a page to lead to; Error when the host is not known
   */
  async placeOf(host: string, port: number): Promise<Place> {
    const mapped = mappedPlace(this.hosts, host, port);
    if (mapped) return mapped;
    const place = placeIn(this.hosts, host, port);
    if (!this.isGuarded || this.#allowed.some((name) => isNamed(name, host))) return place;
    const addresses = await this.#lookUp(place.host);
    const open = addresses.filter(({ address }) => insideWords(address) === undefined);
    if (open.length > 0) return { ...place, addresses: open };
    const [{ address }] = addresses as [LookupAddress];
    const words = `${address === host ? host : `${host} (${address})`} is ${insideWords(address)!}`;
    if (this.#refusals.size < maxNoted) this.#refusals.set(`${host}:${port}`, words);
    throw new RefusedError(words);
  }

  /** Connections that a page opens at once ask for their host once, as a browser does. */
  #lookUp(host: string): Promise<LookupAddress[]> {
    const now = performance.now();
    const known = this.#lookups.get(host);
    if (known && now - known.at < lookupRest) return known.addresses;
    const lookup: Lookup = { at: now, time: 0, addresses: addressesOf(host) };
    if (this.#lookups.size < maxNoted) this.#lookups.set(host, lookup);
    void lookup.addresses.then(
      () => (lookup.time = performance.now() - now),
      () => this.#lookups.delete(host),
    );
    return lookup.addresses;
  }

  /** Milliseconds that the last lookup of an address's host took; 0 if there was none here. */
  lookupTimeOf(url: string): number {
    return URL.canParse(url) ? (this.#lookups.get(bareHost(url))?.time ?? 0) : 0;
  }

  /** Notes the address that a host was found at. */
  found(host: string, address: string): void {
    if (this.#addresses.size < maxNoted) this.#addresses.set(host, address);
  }

  /** The IP address that a host was last found at, if connections to it were seen. */
  addressOf(url: string): string | undefined {
    return URL.canParse(url) ? this.#addresses.get(bareHost(url)) : undefined;
  }

  /** Why an address was not connected to; `undefined` if nothing stood against it. */
  refusalOf(url: string): string | undefined {
    if (this.#refusals.size === 0 || !URL.canParse(url)) return undefined;
    const { protocol, hostname, port } = new URL(url);
    const words = this.#refusals.get(
      `${bareHost(url)}:${port || (protocol === 'https:' ? 443 : 80)}`,
    );
    return words && `${words}, where pages may not lead; --allow-host ${hostname} lets them`;
  }
}

/** The host of an address; an IPv6 address without its brackets. */
function bareHost(url: string): string {
  return new URL(url).hostname.replace(/^\[|\]$/g, '');
}

function isNamed(name: string, host: string): boolean {
  return name.startsWith('*.') ? host.endsWith(name.slice(1)) : name === host;
}

/** Whether any address of a host is inside; one that is not known is not. */
async function isInside(name: string): Promise<boolean> {
  const { host } = placeIn({}, name, 0);
  const addresses = await addressesOf(host).catch(() => []);
  return addresses.some(({ address }) => insideWords(address) !== undefined);
}

/** At least one. */
async function addressesOf(host: string): Promise<LookupAddress[]> {
  const family = isIP(host);
  return family ? [{ address: host, family }] : lookup(host, { all: true });
}
