import { lowRank } from './load-model.js';
import type { LoadModel, MarkerRule, ModelMarkers, ModelRequest } from './load-model.js';

/** When things happen in a simulated load, in milliseconds since it began; `null` for markers that it does not have. */
export interface SimulatedLoad {
  /** Of each request: when its first and its last byte arrive. */
  readonly firstBytes: readonly number[];
  readonly ends: readonly number[];
  readonly firstContentfulPaint: number | null;
  readonly largestContentfulPaint: number | null;
  readonly load: number | null;
}

/** Connections that browsers open to one origin over HTTP/1.1. */
const perOrigin = 6;

interface Flight {
  readonly at: number;
  /** When its first byte arrives. */
  readonly first: number;
  left: number;
  connection: Connection;
}

interface Connection {
  readonly origin: string;
  busy: number;
  /** When it is open. */
  ready: number;
}

/**
 * Plays a load through: requests become known, wait for a connection of their origin (six at most over HTTP/1.1, one over
 * HTTP/2), for its round trips, for their own and for their server, and then share the line in equal parts.
 *
 * Requests of low rank wait while others block rendering, as browsers hold them back. A fluid model: the bytes of all
 * responses under way flow at the same time, each at the rate of the line divided by their number, as the shaping of the
 * browser has it.
 */
export function simulate({ requests, network, markers }: LoadModel): SimulatedLoad {
  const rate = network.down === 0 ? Infinity : network.down / 8;
  const firstBytes = requests.map(() => Infinity);
  const ends = requests.map(() => Infinity);
  const asked = requests.map(({ parent, lag }) => (parent === null ? lag : Infinity));
  const begun = requests.map(() => false);
  const pools = new Map<string, Connection[]>();
  const flights: Flight[] = [];
  let now = 0;
  for (let done = 0; done < requests.length;) {
    done += settle();
    for (const at of waiting()) {
      if (isHeldBack(at)) continue;
      const connection = connectionFor(requests[at]!, pools, now, network.latency);
      if (!connection) continue;
      connection.busy++;
      begun[at] = true;
      const { thinking, bytes } = requests[at]!;
      const first = Math.max(now, connection.ready) + network.latency + thinking;
      flights.push({ at, first, left: bytes, connection });
    }
    const next = nextMoment();
    if (!Number.isFinite(next)) break;
    const flowing = flights.filter(({ first }) => first <= now + epsilon);
    for (const flight of flowing)
      flight.left -= Math.min(flight.left, ((next - now) * rate) / flowing.length);
    now = next;
  }
  return { firstBytes, ends, ...markersAt(markers, firstBytes, ends) };

  /** Ends what has arrived, and makes known what depends on it. */
  function settle(): number {
    let ended = 0;
    for (let index = flights.length - 1; index >= 0; index--) {
      const flight = flights[index]!;
      if (flight.first > now + epsilon) continue;
      if (firstBytes[flight.at] === Infinity) {
        firstBytes[flight.at] = flight.first;
        know(flight.at, 'first-byte', flight.first);
      }
      if (flight.left > epsilon) continue;
      flights.splice(index, 1);
      flight.connection.busy--;
      ends[flight.at] = now;
      know(flight.at, 'end', now);
      ended++;
    }
    return ended;
  }

  function know(parent: number, when: ModelRequest['knownAt'], moment: number): void {
    for (const [at, request] of requests.entries())
      if (request.parent === parent && request.knownAt === when) asked[at] = moment + request.lag;
  }

  /** Whether a request of low rank waits: while anything known blocks rendering, one of them at a time is let through. */
  function isHeldBack(at: number): boolean {
    if (requests[at]!.rank > lowRank) return false;
    const isBlocked = requests.some(
      ({ blocksRendering }, one) =>
        blocksRendering && asked[one] !== Infinity && ends[one] === Infinity,
    );
    return isBlocked && flights.some((flight) => requests[flight.at]!.rank <= lowRank);
  }

  /** Requests that want a connection now, the most important first. */
  function waiting(): number[] {
    return requests
      .flatMap((_, at) => (!begun[at] && asked[at]! <= now + epsilon ? [at] : []))
      .sort((a, b) => requests[b]!.rank - requests[a]!.rank || asked[a]! - asked[b]! || a - b);
  }

  /** When something happens next: a request, a first byte, the end of a response. */
  function nextMoment(): number {
    const flowing = flights.filter(({ first }) => first <= now + epsilon);
    const share = rate / Math.max(1, flowing.length);
    return Math.min(
      ...asked.filter((moment, at) => !begun[at] && moment > now + epsilon),
      ...flights.flatMap(({ first }) => (first > now + epsilon ? [first] : [])),
      ...flowing.map(({ left }) => now + left / share),
    );
  }
}

type SimulatedMarkers = Omit<SimulatedLoad, 'firstBytes' | 'ends'>;

/** The markers of a load whose requests begin and end at the given moments. */
function markersAt(
  { firstContentfulPaint, largestContentfulPaint: largest, domContentLoaded, load }: ModelMarkers,
  firstBytes: readonly number[],
  ends: readonly number[],
): SimulatedMarkers {
  if (ends.length === 0)
    return { firstContentfulPaint: null, largestContentfulPaint: null, load: null };
  const lastEnd = ({ waitsFor }: MarkerRule) =>
    Math.max(firstBytes[0]!, ...waitsFor.map((one) => ends[one]!));
  const after = (rule: MarkerRule | null, soonest = 0) =>
    rule && Math.max(soonest, lastEnd(rule)) + rule.lag;
  const paint = after(firstContentfulPaint);
  const laidOut = firstContentfulPaint ? lastEnd(firstContentfulPaint) : 0;
  const painted = () => {
    if (!largest) return null;
    const pictureEnd = largest.picture === null ? 0 : ends[largest.picture]!;
    if (pictureEnd > laidOut) return Math.max(paint ?? 0, pictureEnd) + largest.lagLate;
    return (paint ?? firstBytes[0]!) + largest.lagInTime;
  };
  return {
    ...{ firstContentfulPaint: paint, largestContentfulPaint: painted() },
    load: after(load, after(domContentLoaded) ?? 0),
  };
}

/** Moments that are nearer to one another are the same. */
const epsilon = 1e-6;

/** A connection that can take a request now; a new one where there may be one more. */
function connectionFor(
  { origin, isMultiplexed, handshakes }: ModelRequest,
  pools: Map<string, Connection[]>,
  now: number,
  latency: number,
): Connection | undefined {
  const pool = pools.get(origin) ?? [];
  pools.set(origin, pool);
  if (isMultiplexed && pool[0]) return pool[0];
  const free = pool.find(({ busy }) => busy === 0);
  if (free) return free;
  if (pool.length >= perOrigin) return undefined;
  const fresh = { origin, busy: 0, ready: now + handshakes * latency };
  pool.push(fresh);
  return fresh;
}
