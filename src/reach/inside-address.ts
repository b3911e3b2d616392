import ipaddr from 'ipaddr.js';

/** Ranges in which any server of the internet may stand; everything else has a purpose of its own. */
const outside: ReadonlySet<string> = new Set(['unicast', 'as112', 'as112v6', 'amt']);

const words: Readonly<Record<string, string>> = {
  loopback: 'this machine',
  private: 'a private network',
  uniqueLocal: 'a private network',
  carrierGradeNat: "a provider's own network",
  linkLocal: 'a link-local network',
  unspecified: 'this machine',
};

/**
 * What an IP address is, in words, if it is not one of the public internet: loopback, link-local, private and reserved
 * ranges, by the registries of RFC 6890. An IPv4 address inside an IPv6 one (mapped, RFC 4291; translated, RFC 6052)
 * counts as itself.
 *
 * @returns `undefined` for a public address
 * @throws Error when it is no IP address
 */
export function insideWords(address: string): string | undefined {
  const parsed = ipaddr.process(address.replace(/%.*$/, ''));
  const range = parsed.range();
  if (range === 'rfc6052') return insideWords(lastFourBytes(parsed));
  return outside.has(range) ? undefined : (words[range] ?? 'a reserved range');
}

function lastFourBytes(address: ipaddr.IPv4 | ipaddr.IPv6): string {
  return address.toByteArray().slice(-4).join('.');
}
