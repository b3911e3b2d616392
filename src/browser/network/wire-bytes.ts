import { LRUCache } from 'lru-cache';
import { isInDocument } from '../../core/address/address.js';
import { remembered } from './bodies.js';
import type { NetworkRecorder } from './network-recorder.js';
import { cameFromNetwork } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

/**
 * What each address weighed when it was fetched whole. Tabs that share a cache share one of these: a page weighs what it
 * weighs on a first visit, whatever the cache or a server that was asked whether it is still good (304) answered this time.
 */
export class WireBytes {
  /** Of the most recent addresses: a survey sees more than memory should hold. */
  readonly #byAddress = new LRUCache<string, { all: number; headers: number }>({
    max: remembered,
  });

  /** Notes every response of a recorder that came whole over the network. */
  watch(recorder: NetworkRecorder): void {
    recorder.onFinished((request) => {
      if (cameFromNetwork(request))
        this.#byAddress.set(request.url, {
          all: request.transferBytes,
          headers: request.headerBytes,
        });
    });
  }

  /** Bytes on the wire of a request on a first visit; what a document brings itself is in the document's. */
  of(request: RecordedRequest): number {
    if (isInDocument(request.url)) return 0;
    if (cameFromNetwork(request)) return Math.round(request.transferBytes);
    // What was fetched too long ago to be remembered weighs its body at the least.
    return Math.round(this.#byAddress.get(request.url)?.all ?? request.bodyBytes);
  }

  /** Those of them that are the headers of the response. */
  headersOf(request: RecordedRequest): number {
    if (cameFromNetwork(request)) return request.headerBytes;
    return this.#byAddress.get(request.url)?.headers ?? 0;
  }
}
