import { hostOf } from '../../core/address/address.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Reach } from '../../reach/reach.js';

/**
 * Requests with the time for name lookups apart. Where the browser connects through the program, the program looks names up,
 * and the browser takes that for a part of connecting.
 */
export function withLookups(
  requests: readonly PageRequest[],
  reach: Pick<Reach, 'lookupTimeOf'>,
): PageRequest[] {
  const seen = new Set<string>();
  return requests.map((request) => {
    const { phases, url } = request;
    const host = hostOf(url);
    // The first connection waits for the lookup; the others have its result.
    if (phases.connect === 0 || phases.dns > 0 || seen.has(host)) return request;
    seen.add(host);
    const dns = Math.min(reach.lookupTimeOf(url), phases.connect);
    return dns === 0
      ? request
      : { ...request, phases: { ...phases, dns, connect: phases.connect - dns } };
  });
}
