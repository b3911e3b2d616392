import { isInDocument } from '../../core/address/address.js';
import type { Resource } from '../../core/survey/resource.js';
import { toldIn } from './image-responses.js';
import { typeOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';
import type { TextCollector } from './texts.js';
import type { WireBytes } from './wire-bytes.js';

/** The most resources of one visit that are kept: a page may ask for data without end. */
const maxResources = 500;

/** The files of one visit that are no images, each address once, in the order in which they were asked for. */
export async function resourcesOf(
  requests: readonly RecordedRequest[],
  texts: TextCollector,
  wireBytes: WireBytes,
): Promise<Omit<Resource, 'thirdParty'>[]> {
  const found = new Map<string, RecordedRequest>();
  for (const request of requests) {
    const isPart = !isInDocument(request.url) && typeOf(request) !== 'image';
    // What has no answer yet, or was given up, says nothing of the file; an error is given up as soon as it is one.
    const isOver =
      request.end !== null && (request.failure !== 'canceled' || request.status >= 400);
    if (isPart && isOver && request.redirectsTo === '' && found.size < maxResources)
      if (!found.has(request.url)) found.set(request.url, request);
  }
  return Promise.all(
    [...found.values()].map(async (request) => {
      const transferBytes = wireBytes.of(request);
      return {
        url: request.url,
        type: typeOf(request),
        status: request.status,
        mediaType: request.mediaType,
        protocol: request.protocol,
        headers: toldIn(request),
        transferBytes,
        wireBytes: Math.max(0, transferBytes - wireBytes.headersOf(request)),
        bodyBytes: request.bodyBytes,
        contentHash: (await texts.find(request.url)) ?? null,
        renderBlocking: request.renderBlocking,
      };
    }),
  );
}
