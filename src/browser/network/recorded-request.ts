import { redacted } from '../../core/base/headers.js';
import type { Header } from '../../core/base/headers.js';
import type { PageRequest, RequestType, SourceLine } from '../../core/load/request.js';
import { phasesOf } from './phases.js';
import type { NetworkTiming } from './phases.js';
import { typeNamed } from './request-type.js';

/** A request while it is under way; times in seconds on the browser's monotonic clock. */
export interface RecordedRequest {
  readonly id: string;
  readonly url: string;
  readonly method: string;
  readonly resourceType: string;
  readonly start: number;
  readonly wallTime: number;
  readonly initiator: string;
  readonly initiatedBy: SourceLine | null;
  readonly firstPriority: string;
  /** Whether the page itself asked for it, and none of its frames. */
  readonly ofPage: boolean;
  readonly renderBlocking: boolean;
  readonly requestHeaders: Header[];
  priority: string;
  end: number | null;
  status: number;
  statusText: string;
  mediaType: string;
  protocol: string;
  timing: NetworkTiming | undefined;
  transferBytes: number;
  bodyBytes: number;
  /** Bytes on the wire when the headers had arrived. */
  headerBytes: number;
  fromCache: boolean;
  /** Whether the server said that what the cache has is still good (304). */
  revalidated: boolean;
  responseHeaders: Header[];
  serverAddress: string;
  redirectsTo: string;
  failure: string | null;
}

/**
 * A recorded request as it is told.
 *
 * @param zero seconds on the browser's monotonic clock at which the navigation began
 */
export function toPageRequest(
  request: RecordedRequest,
  zero: number,
  thirdParty: boolean,
): PageRequest {
  const { start, end, timing } = request;
  return {
    url: request.url,
    method: request.method,
    type: typeOf(request),
    status: request.status,
    statusText: request.statusText,
    mediaType: request.mediaType,
    protocol: request.protocol,
    start: Math.max(0, (start - zero) * 1000),
    end: end === null ? null : Math.max(0, (end - zero) * 1000),
    phases: phasesOf(start, end ?? start, timing),
    transferBytes: Math.round(request.transferBytes),
    bodyBytes: request.bodyBytes,
    fromCache: request.fromCache,
    priority: request.priority,
    firstPriority: request.firstPriority,
    initiator: request.initiator,
    initiatedBy: request.initiatedBy,
    used: null,
    thirdParty,
    renderBlocking: request.renderBlocking,
    requestHeaders: request.requestHeaders,
    responseHeaders: request.responseHeaders,
    serverAddress: request.serverAddress,
    redirectsTo: request.redirectsTo,
    failure: request.failure,
  };
}

/** Whether all of a response came over the network, and nothing from the cache. */
export function cameFromNetwork({ fromCache, revalidated, status }: RecordedRequest): boolean {
  return !fromCache && !revalidated && status !== 304;
}

/** The content type that a request's weight is counted under. */
export function typeOf({ resourceType, mediaType }: RecordedRequest): RequestType {
  return typeNamed(resourceType, mediaType);
}

/** The value of a response header; `name` in lower case. */
export function headerOf(request: RecordedRequest, name: string): string | undefined {
  return request.responseHeaders.find((header) => header.name.toLowerCase() === name)?.value;
}

/** Whether it blocks rendering. */
export function isBlocking(event: object): boolean {
  // Newer than the type definitions of the driver.
  return 'renderBlockingBehavior' in event && event.renderBlockingBehavior === 'Blocking';
}

interface ReportedResponse {
  readonly status: number;
  readonly statusText: string;
  readonly mimeType: string;
  readonly protocol?: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly timing?: NetworkTiming;
  readonly fromDiskCache?: boolean;
  readonly encodedDataLength?: number;
  readonly remoteIPAddress?: string;
}

/** Records the response. */
export function respond(request: RecordedRequest, response: ReportedResponse): void {
  request.status = response.status;
  request.statusText = response.statusText;
  request.mediaType = response.mimeType.toLowerCase();
  request.protocol = response.protocol ?? '';
  request.timing = response.timing;
  request.responseHeaders = headersOf(response.headers);
  request.serverAddress = response.remoteIPAddress ?? '';
  request.headerBytes = response.encodedDataLength ?? 0;
  if (response.fromDiskCache) request.fromCache = true;
}

/** Headers as the browser tells them, without secrets. */
export function headersOf(headers: Readonly<Record<string, string>>): Header[] {
  return Object.entries(headers).map(([name, value]) => redacted({ name, value }));
}
