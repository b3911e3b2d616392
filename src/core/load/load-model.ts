import { hostOf } from '../address/address.js';
import type { Network } from '../visitors/network.js';
import type { PageRequest } from './request.js';
import { serverTime } from './server-time.js';
import type { Run } from './session.js';

/** A request as the model of a load has it. */
export interface ModelRequest {
  readonly url: string;
  /** Where it is connected to: scheme, host and port. */
  readonly origin: string;
  /** Whether the connections of its origin carry any number of requests at a time (HTTP/2). */
  readonly isMultiplexed: boolean;
  /** The request that made it known, by its place in the list; `null` for what is known from the beginning. */
  readonly parent: number | null;
  /** Whether it is known as soon as the parent begins to arrive, or only when all of it is there. */
  readonly knownAt: 'first-byte' | 'end';
  /** Milliseconds from then until it is requested. */
  readonly lag: number;
  /** Round trips of opening a connection: one, and another for TLS 1.3. */
  readonly handshakes: number;
  /** Milliseconds that the server needs, without the line, and without what else was on it. */
  readonly thinking: number;
  /** On the wire, headers included. */
  readonly bytes: number;
  /** Requests of a higher rank get a connection first; those of the lowest wait while something blocks rendering. */
  readonly rank: number;
  readonly blocksRendering: boolean;
  readonly isImage: boolean;
  /** Whether it is the page's own document, redirects followed. */
  readonly isDocument: boolean;
}

/** A load as requests that depend on one another, on a line. */
export interface LoadModel {
  readonly requests: readonly ModelRequest[];
  readonly network: Pick<Network, 'latency' | 'down'>;
  /** What each marker waits for. */
  readonly markers: ModelMarkers;
}

/** The requests whose ends a marker comes after, by places in the list, and the milliseconds from the last of them. */
export interface MarkerRule {
  readonly waitsFor: readonly number[];
  readonly lag: number;
}

/**
 * What the largest contentful paint comes after. A picture that has ended before the page is laid out is painted with the
 * first frame; a later one is painted in a frame of its own.
 */
export interface LargestRule {
  /** The place of its picture; `null` where it is text. */
  readonly picture: number | null;
  /** Milliseconds since the first contentful paint, where the picture is in time for it or there is none. */
  readonly lagInTime: number;
  /** Milliseconds since the later of the first contentful paint and the end of the picture, where it is not. */
  readonly lagLate: number;
}

/** Milliseconds that laying a page out and painting it take without any picture: about as much on all pages that were tried. */
export const barePaint = 100;

/** All of them come after the first bytes of the document as well. */
export interface ModelMarkers {
  readonly firstContentfulPaint: MarkerRule | null;
  readonly largestContentfulPaint: LargestRule | null;
  readonly domContentLoaded: MarkerRule | null;
  /** Comes after the content is parsed, too. */
  readonly load: MarkerRule | null;
}

const ranks: Readonly<Record<string, number>> = {
  VeryHigh: 4,
  High: 3,
  Medium: 2,
  Low: 1,
  VeryLow: 0,
};

/** The rank of what may wait: pictures that are not known to be in the first screen, for example. */
export const lowRank = 1;

/** The rank of what is asked for with priority. */
export const highRank = 3;

/** Milliseconds by which clocks of one load may disagree. */
const tolerance = 2;

/**
 * The model of a load that was measured: what each request waited for, how long its server took, and what the markers
 * came after. Scripts take as long as they took.
 *
 * @param network the line that it was measured on
 */
export function modelOf(run: Run, network: LoadModel['network']): LoadModel {
  const all = run.requests.filter(({ end, fromCache }) => end !== null && !fromCache);
  const requests = all.map((request, at) => modelRequest(request, at, all, network));
  const places = (holds: (request: PageRequest) => boolean) =>
    all.flatMap((request, at) => (holds(request) ? [at] : []));
  const { firstContentfulPaint: paint, domContentLoaded: parsed, load } = run.markers;
  const by = (moment: number | null) => (request: PageRequest) =>
    moment !== null && request.end! <= moment + tolerance;
  const blocking = places((one) => one.renderBlocking && by(paint)(one));
  const scripts = places((one) => (one.renderBlocking || one.type === 'script') && by(parsed)(one));
  const firstPaint = ruleOf(all, paint, blocking);
  return {
    ...{ requests, network },
    markers: {
      firstContentfulPaint: firstPaint,
      largestContentfulPaint: largestRule(all, run, firstPaint),
      domContentLoaded: ruleOf(all, parsed, scripts),
      load: ruleOf(all, load, places(by(load)), parsed ?? 0),
    },
  };
}

/** @param soonest a moment that the marker comes after in any case */
function ruleOf(
  all: readonly PageRequest[],
  moment: number | null,
  waitsFor: readonly number[],
  soonest = 0,
): MarkerRule | null {
  if (moment === null || all.length === 0) return null;
  return { waitsFor, lag: Math.max(0, moment - Math.max(soonest, lastEnd(all, waitsFor))) };
}

function largestRule(
  all: readonly PageRequest[],
  { markers, largest }: Run,
  firstPaint: MarkerRule | null,
): LargestRule | null {
  const { firstContentfulPaint, largestContentfulPaint: moment } = markers;
  if (moment === null || all.length === 0) return null;
  const paint = firstContentfulPaint ?? 0;
  const url = largest?.url ?? null;
  const picture = all.findIndex((one) => one.url === url && one.end! <= moment);
  const end = picture < 0 ? 0 : all[picture]!.end!;
  if (end > lastEnd(all, firstPaint?.waitsFor ?? []))
    return { picture, lagInTime: 0, lagLate: moment - Math.max(paint, end) };
  const lag = Math.max(0, moment - paint);
  // How long a frame of its own would take was not seen: about as long as the first one, without decoding.
  const frame = Math.min(barePaint, firstPaint?.lag ?? 0);
  return { picture: picture < 0 ? null : picture, lagInTime: lag, lagLate: Math.max(lag, frame) };
}

/** When the document had begun to arrive and the given requests had ended. */
function lastEnd(all: readonly PageRequest[], places: readonly number[]): number {
  return Math.max(firstByteOf(all[0]!), ...places.map((at) => all[at]!.end!));
}

function firstByteOf({ end, phases }: PageRequest): number {
  return end! - phases.receive;
}

function modelRequest(
  request: PageRequest,
  at: number,
  all: readonly PageRequest[],
  network: LoadModel['network'],
): ModelRequest {
  const { url, protocol, start, transferBytes, firstPriority, initiatedBy } = request;
  const parent = at === 0 ? -1 : parentOf(request, at, all, initiatedBy?.url ?? null);
  const known = parent < 0 ? null : all[parent]!;
  const fromFirst = known?.type === 'html' && !known.redirectsTo;
  const moment = known === null ? 0 : fromFirst ? firstByteOf(known) : known.end!;
  return {
    url,
    origin: URL.canParse(url) ? new URL(url).origin : hostOf(url),
    isMultiplexed: /^h[23]/.test(protocol),
    parent: parent < 0 ? null : parent,
    knownAt: fromFirst ? 'first-byte' : 'end',
    lag: Math.max(0, start - moment),
    handshakes: url.startsWith('https:') ? 2 : 1,
    thinking: serverTime(request, all, network),
    bytes: transferBytes,
    rank: ranks[firstPriority] ?? lowRank,
    blocksRendering: request.renderBlocking,
    isImage: request.type === 'image',
    isDocument: request === all.find(({ type, redirectsTo }) => type === 'html' && !redirectsTo),
  };
}

/** The place of the request that made another known: what redirected to it, or named it; else the document. */
function parentOf(
  { url, initiator, start }: PageRequest,
  at: number,
  all: readonly PageRequest[],
  named: string | null,
): number {
  const earlier = all.slice(0, at);
  if (initiator === 'redirect')
    return earlier.findLastIndex(({ redirectsTo }) => redirectsTo === url);
  const by = earlier.findLastIndex(
    (one) => one.url === named && (one.type === 'html' || one.end! <= start + tolerance),
  );
  if (by >= 0) return by;
  return earlier.findIndex(({ type, redirectsTo }) => type === 'html' && !redirectsTo);
}
