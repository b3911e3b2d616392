import { hostOf } from '../address/address.js';
import { groupBy } from '../base/group-by.js';
import type { PageRequest } from '../load/request.js';

/**
 * The shortest time that each request waited for its response over several loads of one page. What a busy machine adds to a
 * wait is never negative and differs from load to load; what is left of all of them is the line and the server.
 *
 * @param loads the requests of further loads
 * @returns milliseconds for each request of the first one; `null` where no other load asked for the same
 */
export function shortestWaits(
  requests: readonly PageRequest[],
  loads: readonly (readonly PageRequest[])[],
): (number | null)[] {
  const others = loads.map(byAddress);
  const own = byAddress(requests);
  return requests.map((request) => {
    const key = keyOf(request);
    const turn = own.get(key)!.indexOf(request);
    const found = others.flatMap((load) => load.get(key)?.[turn] ?? []);
    // A response that was another one, or came from elsewhere, says nothing of this one.
    const alike = found.filter(
      ({ status, fromCache }) => status === request.status && fromCache === request.fromCache,
    );
    if (alike.length === 0) return null;
    return Math.min(request.phases.wait, ...alike.map(({ phases }) => phases.wait));
  });
}

/**
 * Milliseconds that a connection to each host took to open, at the least, over some loads: the round trip to it. Hosts to
 * which none was opened have none.
 */
export function shortestConnects(loads: readonly (readonly PageRequest[])[]): Map<string, number> {
  const opened = loads.flat().filter(({ phases }) => phases.connect > 0);
  return new Map(
    [...groupBy(opened, ({ url }) => hostOf(url))].map(([host, own]) => [
      host,
      Math.min(...own.map(({ phases }) => phases.connect)),
    ]),
  );
}

function byAddress(requests: readonly PageRequest[]): Map<string, PageRequest[]> {
  return groupBy(requests, keyOf);
}

function keyOf({ method, url }: PageRequest): string {
  return `${method} ${url}`;
}
