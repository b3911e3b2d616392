import { hostOf } from '../address/address.js';
import { groupBy } from '../base/group-by.js';
import type { PageRequest } from './request.js';

/** The bytes that one host sent to a page. */
export interface HostBytes {
  readonly host: string;
  readonly thirdParty: boolean;
  readonly requests: number;
  /** On the wire. */
  readonly bytes: number;
}

/** The weight of a load by host: the page's own party first, then by bytes. */
export function bytesByHost(requests: readonly PageRequest[]): HostBytes[] {
  const hosts = groupBy(requests, ({ url }) => hostOf(url));
  return [...hosts]
    .map(([host, of]) => ({
      host,
      thirdParty: of.every(({ thirdParty }) => thirdParty),
      requests: of.length,
      bytes: of.reduce((sum, { transferBytes }) => sum + transferBytes, 0),
    }))
    .sort(
      (a, b) =>
        Number(a.thirdParty) - Number(b.thirdParty) ||
        b.bytes - a.bytes ||
        (a.host < b.host ? -1 : 1),
    );
}
