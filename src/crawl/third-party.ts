import { getDomain } from 'tldts';
import { hostOf } from '../core/address/address.js';

/**
 * Whether an address is another party's than the page that uses it: their registrable domains, by
 * the public suffix list, differ. Hosts without one (addresses, `localhost`) are compared whole.
 */
export function isThirdParty(address: string, page: string): boolean {
  const host = hostOf(address);
  return host !== '' && partyOf(address) !== partyOf(page);
}

/** The registrable domain of an address, or its host where it has none. */
export function partyOf(address: string): string {
  return getDomain(address, { allowPrivateDomains: true }) ?? hostOf(address).replace(/:\d+$/, '');
}
