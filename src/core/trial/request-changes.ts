import type { RequestChange, RequestChanges } from '../load/changed-model.js';
import type { Recording } from './recording.js';

/** What a fix changes of the requests of a page: those that are gone, and those that weigh something else on the wire. */
export function requestChanges(before: Recording, after: Recording): RequestChanges {
  const kept = new Map(after.responses.map((response) => [response.request.url, response]));
  const changes = new Map<string, RequestChange | 'gone'>();
  for (const { request, wireBytes } of before.responses) {
    const is = kept.get(request.url);
    if (!is) changes.set(request.url, 'gone');
    else if (is.wireBytes !== wireBytes)
      changes.set(request.url, {
        bytes: Math.max(0, request.transferBytes + is.wireBytes - wireBytes),
      });
  }
  return changes;
}
