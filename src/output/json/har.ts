import type { PageRequest } from '../../core/load/request.js';
import { phaseNames } from '../../core/load/request.js';
import type { Run, Session } from '../../core/load/session.js';

/** A document in the HTTP Archive format, version 1.2; typed as far as it is made. */
export interface Har {
  readonly log: Readonly<Record<string, unknown>> & {
    readonly version: '1.2';
    readonly entries: readonly Readonly<Record<string, unknown>>[];
  };
}

/**
 * One run of a session as a HAR file. Fields of our own begin with an underscore, as the format
 * allows.
 */
export function harOf(
  session: Session,
  run: Run,
  creator: { readonly name: string; readonly version: string },
): Har {
  const began = Date.parse(run.startedAt);
  const at = (milliseconds: number) => new Date(began + milliseconds).toISOString();
  const { browser, ...conditions } = session.conditions ?? { browser: '' };
  const [browserName, browserVersion] = browser.split(' ');
  const { domContentLoaded, load } = run.markers;
  return {
    log: {
      version: '1.2',
      creator,
      browser: { name: browserName, version: browserVersion ?? '' },
      pages: [
        {
          startedDateTime: at(0),
          id: 'page_1',
          title: session.page,
          pageTimings: { onContentLoad: domContentLoaded ?? -1, onLoad: load ?? -1 },
          _markers: run.markers,
          ...(run.largest === undefined ? {} : { _largest: run.largest }),
          ...(run.firstScreen && { _firstScreen: run.firstScreen }),
          ...(session.conditions && { _conditions: conditions }),
        },
      ],
      entries: run.requests.map((request) => entryOf(request, at(request.start))),
    },
  };
}

function entryOf(request: PageRequest, startedDateTime: string) {
  const { phases } = request;
  const time = phaseNames.reduce((sum, name) => sum + phases[name], 0);
  return {
    pageref: 'page_1',
    startedDateTime,
    time,
    request: {
      method: request.method,
      url: request.url,
      httpVersion: request.protocol,
      cookies: [],
      headers: request.requestHeaders,
      queryString: queryOf(request.url),
      headersSize: -1,
      bodySize: -1,
    },
    response: {
      status: request.status,
      statusText: request.statusText,
      httpVersion: request.protocol,
      cookies: [],
      headers: request.responseHeaders,
      content: { size: request.bodyBytes, mimeType: request.mediaType },
      redirectURL: request.redirectsTo,
      headersSize: -1,
      bodySize: -1,
      _transferBytes: request.transferBytes,
    },
    cache: {},
    timings: {
      blocked: phases.blocked,
      dns: phases.dns || -1,
      // In HAR the time for TLS is part of connect.
      connect: phases.connect + phases.tls || -1,
      ssl: phases.tls || -1,
      send: phases.send,
      wait: phases.wait,
      receive: phases.receive,
    },
    ...(request.serverAddress ? { serverIPAddress: request.serverAddress } : {}),
    // Moments of the format are whole milliseconds.
    _start: request.start,
    ...(request.end === null ? { _unfinished: true } : {}),
    _type: request.type,
    _priority: request.priority,
    _firstPriority: request.firstPriority,
    _initiator: request.initiator,
    ...(request.initiatedBy && { _initiatedBy: request.initiatedBy }),
    ...(request.used === null ? {} : { _used: request.used }),
    _thirdParty: request.thirdParty,
    _renderBlocking: request.renderBlocking,
    _fromCache: request.fromCache,
    ...(request.failure === null ? {} : { _failure: request.failure }),
  };
}

function queryOf(address: string): { name: string; value: string }[] {
  if (!URL.canParse(address)) return [];
  return [...new URL(address).searchParams].map(([name, value]) => ({ name, value }));
}
