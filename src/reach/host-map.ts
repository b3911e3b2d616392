import { isIP } from 'node:net';
import type { LookupAddress } from 'node:dns';

/** The real place of each host, as `address:port`, by host name; `*.` stands for all subdomains. */
export type HostMap = Readonly<Record<string, string>>;

/** A host and port of an address, or where it really is. */
export interface Place {
  readonly host: string;
  readonly port: number;
  /** The addresses of the host, where they are known: no others are connected to. */
  readonly addresses?: readonly LookupAddress[];
}

/** The place that a person gave for a host: by its name, else by a `*.` that matches it. */
export function mappedPlace(hosts: HostMap, host: string, port: number): Place | undefined {
  const mapped = hosts[host] ?? hosts[Object.keys(hosts).find((name) => matches(name, host)) ?? ''];
  if (mapped === undefined) return undefined;
  const [, address = mapped, given] = /^(.*?)(?::(\d+))?$/.exec(mapped)!;
  return { host: bareAddress(address), port: given ? Number(given) : port };
}

function matches(name: string, host: string): boolean {
  return name.startsWith('*') && host.endsWith(name.slice(1));
}

/** The real place of a host that may be mapped. */
export function placeIn(hosts: HostMap, host: string, port: number): Place {
  const mapped = mappedPlace(hosts, host, port);
  if (mapped) return mapped;
  return { host: isLocalName(host) ? '127.0.0.1' : bareAddress(host), port };
}

/** By RFC 6761 these names are loopback, whatever a name service says. */
function isLocalName(host: string): boolean {
  return /^(?:.*\.)?localhost\.?$/i.test(host);
}

function bareAddress(address: string): string {
  return address.replace(/^\[|\]$/g, '');
}

/** Whether a page is served by this machine. */
export function isServedHere(url: string, hosts: HostMap): boolean {
  const { hostname } = new URL(url);
  return isLoopback(placeIn(hosts, hostname, 0).host);
}

/** Whether an address belongs to this machine. */
export function isLoopback(address: string): boolean {
  const host = bareAddress(address);
  if (isIP(host) === 4) return host.startsWith('127.');
  return host === '::1' || isLocalName(host);
}
