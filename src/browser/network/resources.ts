import { isInDocument } from '../../core/address/address.js';
import type { Resource } from '../../core/survey/resource.js';
import { toldIn } from './image-responses.js';
import { headerOf, typeOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';
import type { NetworkRecorder } from './network-recorder.js';
import type { TextCollector } from './texts.js';
import type { WireBytes } from './wire-bytes.js';

/** The most resources of one visit that are kept: a page may ask for data without end. */
const maxResources = 500;

/** The files of one visit that are no images, each address once, in the order in which they were asked for. */
export async function resourcesOf(
  recorder: NetworkRecorder,
  texts: TextCollector,
  wireBytes: WireBytes,
): Promise<Omit<Resource, 'thirdParty'>[]> {
  const found = new Map<string, RecordedRequest>();
  const requests = [...recorder.recorded];
  const page = recorder.document?.url;
  const times = new Map<string, number>();
  const leading = new Map<string, string[]>();
  for (const request of requests) {
    if (request.redirectsTo !== '')
      leading.set(request.id, [...(leading.get(request.id) ?? []), request.url]);
    else times.set(request.url, (times.get(request.url) ?? 0) + 1);
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
      const by = request.initiatedBy?.url;
      return {
        url: request.url,
        type: typeOf(request),
        status: request.status,
        mediaType: request.mediaType,
        protocol: request.protocol,
        headers: toldIn(request),
        transferBytes,
        wireBytes: bodyOnWire(request, transferBytes, wireBytes.headersOf(request)),
        bodyBytes: request.bodyBytes,
        contentHash: (await texts.find(request.url)) ?? null,
        renderBlocking: request.renderBlocking,
        initiator: initiatorOf(request),
        initiatedBy: by === undefined || by === page ? null : by,
        redirects: leading.get(request.id) ?? [],
        cookieBytes: recorder.cookieBytesOf(request),
        times: times.get(request.url) ?? 1,
      };
    }),
  );
}

/** What caused a request; behind a redirect that is not known any more. */
function initiatorOf({ initiator }: RecordedRequest): string {
  return initiator === 'redirect' ? 'other' : initiator;
}

/** Bytes of the body on the wire: as many as the server said, or what is not headers. */
function bodyOnWire(request: RecordedRequest, transferBytes: number, headerBytes: number): number {
  const said = Number(headerOf(request, 'content-length') ?? NaN);
  // Over HTTP/2 what came of the body in the same packet is counted as headers.
  return said > 0 && said <= transferBytes ? said : Math.max(0, transferBytes - headerBytes);
}
