import type { Network } from '../visitors/network.js';
import type { PageRequest } from './request.js';

/**
 * Milliseconds that a server took to respond: what it was waited for, without the round trip and without the time for which
 * a line of known speed was busy with other responses. Where the line was busy all the while, nothing is known of the server,
 * and it is 0.
 *
 * @param all the requests of the load
 * @param network the line; `null` where it is not known
 */
export function serverTime(
  request: PageRequest,
  all: readonly PageRequest[],
  network: Pick<Network, 'latency' | 'down'> | null,
): number {
  const { wait } = request.phases;
  const to = receivingFrom(request);
  const from = to - wait;
  const bytes = all.reduce(
    (sum, other) => (other === request ? sum : sum + bytesBetween(other, from, to)),
    0,
  );
  const busy = network && network.down > 0 ? (bytes * 8) / network.down : 0;
  return Math.max(0, wait - (network?.latency ?? 0) - busy);
}

/** Bytes that were received between two moments, if they came evenly. */
function bytesBetween(request: PageRequest, from: number, to: number): number {
  const { receive } = request.phases;
  if (receive <= 0 || request.fromCache) return 0;
  const begun = receivingFrom(request);
  const both = Math.min(to, begun + receive) - Math.max(from, begun);
  return both > 0 ? request.transferBytes * (both / receive) : 0;
}

/** When the first byte of a response arrived. */
function receivingFrom({ start, phases }: PageRequest): number {
  const { receive: _, ...before } = phases;
  return start + Object.values(before).reduce((sum, phase) => sum + phase, 0);
}
