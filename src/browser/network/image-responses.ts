import { isInDocument } from '../../core/address/address.js';
import { toldHeaders } from '../../core/survey/image-file.js';
import type { ImageResponse } from '../../core/survey/image-file.js';
import { isImage } from './bodies.js';
import type { BodyCollector } from './bodies.js';
import { networkWords } from '../chromium/navigate.js';
import { cameFromNetwork, headerOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

/** An answer to the request of an image, as one visit saw it. */
export type ImageAnswer = Omit<ImageResponse, 'page' | 'view' | 'thirdParty'>;

/**
 * The images that a page requested, each address once, with the file that arrived or the reason why none did.
 * Waits for bodies that the browser is still handing over.
 *
 * @param cookieBytesOf the bytes of the cookies that went with a request
 * @param settled whether the page has what it waits for: what has no answer by then is a beacon on its
 * way, and is missed by nobody
 */
export async function imageAnswers(
  requests: readonly RecordedRequest[],
  cookieBytesOf: (request: RecordedRequest) => number,
  bodies: BodyCollector,
  settled: boolean,
): Promise<ImageAnswer[]> {
  const answers = new Map<string, ImageAnswer>();
  const leading = new Map<string, string[]>();
  for (const request of requests) {
    if (request.redirectsTo) {
      leading.set(request.id, [...(leading.get(request.id) ?? []), request.url]);
      continue;
    }
    const known = answers.get(request.url);
    const redirects = [...(known?.redirects ?? []), ...(leading.get(request.id) ?? [])];
    if (known?.contentHash) {
      const sent = (known.sent ?? 1) + (wasSentWhole(request) ? 1 : 0);
      const again = sent > 1 ? { sent } : {};
      answers.set(request.url, { ...known, redirects: [...new Set(redirects)], ...again });
      continue;
    }
    if (!asksForImage(request) || (settled && isUnanswered(request))) continue;
    const problem = problemOf(request);
    const body = problem === null ? await bodies.find(request.url) : problem;
    const came = typeof body === 'string' ? undefined : body;
    const cookieBytes = cookieBytesOf(request);
    answers.set(request.url, {
      url: request.url,
      contentHash: came?.contentHash ?? null,
      problem: typeof body === 'string' ? body : null,
      status: isInDocument(request.url) ? 0 : request.status,
      redirects: [...new Set(redirects)],
      declaredType: request.mediaType,
      protocol: request.protocol,
      headers: toldIn(request),
      initiator: request.initiator,
      ...(cookieBytes > 0 && { cookieBytes }),
      transferBytes: came?.transferBytes ?? Math.round(request.transferBytes),
    });
  }
  return [...answers.values()];
}

/** Content hashes by the address a page asked for, redirects followed. */
export function hashesByAddress(answers: readonly ImageAnswer[]): ReadonlyMap<string, string> {
  const hashes = new Map<string, string>();
  for (const { url, redirects, contentHash } of answers)
    if (contentHash !== null)
      for (const address of [url, ...redirects])
        if (!hashes.has(address)) hashes.set(address, contentHash);
  return hashes;
}

function asksForImage(request: RecordedRequest): boolean {
  // What the page itself gave up on was not missed by anybody.
  if (request.failure === 'canceled') return false;
  return request.resourceType === 'Image' || isImage(request);
}

/** Whether a file that has come before was sent once more. */
function wasSentWhole(request: RecordedRequest): boolean {
  return (
    cameFromNetwork(request) &&
    isImage(request) &&
    request.end !== null &&
    !isInDocument(request.url)
  );
}

function isUnanswered({ end, status }: RecordedRequest): boolean {
  return end === null && status === 0;
}

/** Why no file can have come, or `null` when one should have. */
function problemOf({ status, failure, end, transferBytes }: RecordedRequest): string | null {
  if (status >= 400) return `returned ${status}`;
  if (failure !== null) return networkWords(failure.replace('net::', ''));
  if (end !== null) return null;
  if (status === 0) return 'no response';
  return `its body was incomplete after ${Math.round(transferBytes)} bytes`;
}

/** What a response said of how it was sent and how long it may be kept. */
export function toldIn(request: RecordedRequest): ImageResponse['headers'] {
  return Object.fromEntries(
    toldHeaders.flatMap((name) => {
      const value = headerOf(request, name);
      // That a connection is kept is what every server says.
      const isUsual = name === 'connection' && !/close/i.test(value ?? '');
      return value === undefined || isUsual ? [] : [[name, value.slice(0, 500)]];
    }),
  );
}
