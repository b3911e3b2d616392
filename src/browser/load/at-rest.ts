import { setTimeout as after } from 'node:timers/promises';
import { isInDocument } from '../../core/address/address.js';
import { interactiveAt } from '../../core/load/interactive.js';
import { noMarkers } from '../../core/load/markers.js';
import type { Markers } from '../../core/load/markers.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Reach } from '../../reach/reach.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { PageMarkers } from '../in-page/markers.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import { toPageRequest } from '../network/recorded-request.js';
import type { RecordedRequest } from '../network/recorded-request.js';
import { withLookups } from './lookups.js';

/** A page that is loading, and its listeners. */
export interface Load {
  readonly world: IsolatedWorld;
  readonly recorder: NetworkRecorder;
  readonly isThirdParty: (address: string) => boolean;
  readonly reach: Pick<Reach, 'lookupTimeOf' | 'addressOf'> | undefined;
}

/** What the page and its network report, once the page is at rest or the limit has passed. */
export async function readAtRest(
  { world, recorder, isThirdParty, reach }: Load,
  { rest }: { readonly rest: number },
) {
  const end = performance.now() + rest;
  for (;;) {
    const seen = await world.call<PageMarkers>('markersOf');
    const { recorded } = recorder;
    const first = recorded[0]!;
    const zero = first.start - Math.max(0, first.wallTime - seen.timeOrigin / 1000);
    const told = (request: RecordedRequest) => {
      const known = toPageRequest(request, zero, isThirdParty(request.url));
      const address = known.serverAddress && reach?.addressOf(request.url);
      return address ? { ...known, serverAddress: address } : known;
    };
    const loaded = recorded
      // What a document or style sheet brings itself is no request.
      .filter(({ url }) => !isInDocument(url))
      .map(told)
      .sort((a, b) => a.start - b.start);
    const requests = reach ? withLookups(loaded, reach) : loaded;
    const interactive = rest > 0 ? interactiveAt({ ...seen, requests }) : null;
    if (interactive !== null || performance.now() >= end)
      return { seen, requests, interactive, told };
    await after(250);
  }
}

/**
 * When the document's own answer began to arrive. It is read off the network: the page's timeline
 * says when the real line delivered it, before the shaped line held it back.
 */
function firstByteOf(requests: readonly PageRequest[]): number | null {
  const document = requests.find(({ type, redirectsTo }) => type === 'html' && !redirectsTo);
  if (document?.end == null) return null;
  return document.end - document.phases.receive;
}

/** The end of the last traffic, if the network went quiet after it. */
function quietFrom(requests: readonly PageRequest[], load: number | null): number | null {
  if (requests.some(({ end }) => end === null)) return null;
  return Math.max(load ?? 0, ...requests.map(({ end }) => end ?? 0));
}

function lastByteOf(requests: readonly PageRequest[]): number | null {
  const ends = requests.flatMap(({ end }) => end ?? []);
  return ends.length > 0 ? Math.max(...ends) : null;
}

/** The markers of a load, from what the page and its network saw; when it became interactive is worked out apart. */
export function markersOf(seen: PageMarkers, requests: readonly PageRequest[]): Markers {
  const { firstPaint, firstContentfulPaint, largestContentfulPaint } = seen;
  const { domContentLoaded, load, blockingTime, layoutShift } = seen;
  return {
    ...noMarkers(),
    ...{ firstPaint, firstContentfulPaint, largestContentfulPaint },
    ...{ domContentLoaded, load, blockingTime, layoutShift },
    ttfb: firstByteOf(requests),
    lastByte: lastByteOf(requests),
    quiet: quietFrom(requests, load),
  };
}
