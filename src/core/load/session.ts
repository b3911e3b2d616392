import type { Conditions } from '../visitors/conditions.js';
import { markerNames } from './markers.js';
import type { MarkerName, Markers } from './markers.js';
import { record } from '../base/record.js';
import { bytesByType, requestTypes, totalBytes } from './request.js';
import type { PageRequest, RequestType } from './request.js';
import { summarise } from '../base/summary.js';
import type { Summary } from '../base/summary.js';

/** One cold load. */
export interface Run {
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  readonly finalUrl: string;
  readonly status: number | null;
  readonly markers: Markers;
  readonly requests: readonly PageRequest[];
  /** What the largest contentful paint was of; left out where it is not known. */
  readonly largest?: LargestContent | null;
  /** Addresses of the pictures in the first screen; left out where they are not known. */
  readonly firstScreen?: readonly string[];
  /** Addresses of lazy images that were not asked for, because nobody had scrolled to them; left out where not known. */
  readonly putOff?: readonly string[];
  /** Milliseconds after which it was cut off, without a load event; left out where it came to its end. */
  readonly cutOff?: number;
  /** Processes that waited for a core of the machine when it began, a minute's average; left out where not known. */
  readonly hostLoad?: number;
  /** Why the run does not count, when it does not. */
  readonly failure: string | null;
}

/** The element and picture of a largest contentful paint. */
export interface LargestContent {
  /** Finds the element again; empty when it had left the document. */
  readonly selector: string;
  /** Address of the picture, and `null` of a text. */
  readonly url: string | null;
}

/** A set of cold loads of one page under one set of conditions. */
export interface Session {
  readonly id: number;
  readonly label: string;
  readonly page: string;
  readonly startedAt: string;
  /** `null` if the file that the session was read from does not have them. */
  readonly conditions: Conditions | null;
  readonly runs: readonly Run[];
}

/** The summary of a session's runs. */
export interface SessionSummary {
  readonly markers: Readonly<Record<MarkerName, Summary | null>>;
  readonly requestCount: Summary;
  readonly requestsByType: Readonly<Record<RequestType, Summary>>;
  readonly bytes: Summary;
  readonly bytesByType: Readonly<Record<RequestType, Summary>>;
  readonly countedRuns: number;
  readonly failedRuns: number;
}

/** The runs that count. */
export function countedRuns<Some extends Pick<Run, 'failure'>>({
  runs,
}: {
  readonly runs: readonly Some[];
}): Some[] {
  return runs.filter(({ failure }) => failure === null);
}

/** The values of each run that counts, in the order of the runs; one list for each number. */
export interface SessionSamples {
  readonly markers: Readonly<Record<MarkerName, readonly (number | null)[]>>;
  readonly requestCount: readonly number[];
  readonly requestsByType: Readonly<Record<RequestType, readonly number[]>>;
  readonly bytes: readonly number[];
  readonly bytesByType: Readonly<Record<RequestType, readonly number[]>>;
}

/** The numbers of the runs that count. */
export function samplesOf(session: Pick<Session, 'runs'>): SessionSamples {
  const runs = countedRuns(session);
  const weights = runs.map(({ requests }) => bytesByType(requests));
  return {
    markers: record(markerNames, (name) => runs.map(({ markers }) => markers[name])),
    requestCount: runs.map(({ requests }) => requests.length),
    requestsByType: record(requestTypes, (type) =>
      runs.map(({ requests }) => requests.filter((request) => request.type === type).length),
    ),
    bytes: weights.map(totalBytes),
    bytesByType: record(requestTypes, (type) => weights.map((weight) => weight[type])),
  };
}

/**
 * Medians and ranges over the runs that count.
 *
 * @throws RangeError when no run counts.
 */
export function summariseSession(session: Pick<Session, 'runs'>): SessionSummary {
  const counted = countedRuns(session).length;
  if (counted === 0) throw new RangeError('no run of the session counts');
  const samples = samplesOf(session);
  const over = (values: readonly number[]) => summarise(values)!;
  return {
    markers: record(markerNames, (name) => summarise(samples.markers[name])),
    requestCount: over(samples.requestCount),
    requestsByType: record(requestTypes, (type) => over(samples.requestsByType[type])),
    bytes: over(samples.bytes),
    bytesByType: record(requestTypes, (type) => over(samples.bytesByType[type])),
    countedRuns: counted,
    failedRuns: session.runs.length - counted,
  };
}

/**
 * The run that stands for the session: of those that count, the one whose load event is nearest to
 * the median, the earlier of two that are equally near.
 *
 * @throws RangeError when no run counts.
 */
export function medianRun(session: Pick<Session, 'runs'>): Run {
  const runs = countedRuns(session);
  const middle = summarise(runs.map(({ markers }) => markers.load))?.median ?? 0;
  const distance = ({ markers }: Run) => Math.abs((markers.load ?? Infinity) - middle);
  const [first, ...rest] = runs;
  if (!first) throw new RangeError('no run of the session counts');
  return rest.reduce((best, run) => (distance(run) < distance(best) ? run : best), first);
}
