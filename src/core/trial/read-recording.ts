import { hostOf } from '../address/address.js';
import { amountOf } from '../base/untrusted.js';
import { totalSize } from '../base/headers.js';
import type { HarContent } from '../load/har-content.js';
import type { PageRequest } from '../load/request.js';
import type { Run } from '../load/session.js';
import { encodingOf, headerValue } from './recording.js';
import type { RecordedResponse, Recording } from './recording.js';
import { shortestConnects } from './shortest-times.js';

/** A body that has been stored. */
export interface StoredBody {
  readonly hash: string;
  readonly bytes: number;
}

/**
 * The recording in a HAR file.
 *
 * The time that a server took is what the browser waited for it (the shortest time of several loads, where there were
 * some), less a round trip to its host: the shortest time that connecting to it took, in all of them.
 *
 * @param run with every request of the file
 * @param stored the body of each request of the run; `null` for none
 */
export function readRecording(
  page: string,
  run: Run,
  contents: readonly HarContent[],
  stored: readonly (StoredBody | null)[],
): Recording {
  const roundTrips = shortestConnects([run.requests]);
  const responses = run.requests.map((request, index): RecordedResponse => {
    const body = stored[index] ?? null;
    const { shortestWait, shortestConnect } = contents[index] ?? noTimes;
    const trip = shortestConnect ?? roundTrips.get(hostOf(request.url)) ?? 0;
    return {
      request,
      bodyHash: body?.hash ?? null,
      bodyBytes: body?.bytes ?? 0,
      wireBytes: wireBytesOf(request, body?.bytes ?? 0),
      encoding: encodingOf(request),
      thinking: Math.max(0, (shortestWait ?? request.phases.wait) - trip),
      onScroll: contents[index]?.onScroll ?? false,
    };
  });
  const early = run.requests.filter((_, index) => !contents[index]?.onScroll);
  return {
    ...{ page, responses, run: { ...run, requests: early } },
    multiplexed: new Set(
      run.requests.filter(({ protocol }) => /^h[23]/.test(protocol)).map(({ url }) => hostOf(url)),
    ),
  };
}

const noTimes = { shortestWait: null, shortestConnect: null };

/** Bytes of a body on the wire: as declared, else what came over the wire less its headers. */
function wireBytesOf(request: PageRequest, bodyBytes: number): number {
  const declared = amountOf(headerValue(request.responseHeaders, 'content-length') || null);
  if (declared !== null) return declared;
  const { transferBytes, responseHeaders } = request;
  const known =
    transferBytes > 0 ? Math.max(0, transferBytes - totalSize(responseHeaders)) : bodyBytes;
  return encodingOf(request) === 'identity' ? bodyBytes : Math.min(known, bodyBytes);
}
