import type { PageRequest } from '../load/request.js';
import type { Run } from '../load/session.js';

/** A response as a recording has it, or as a fix has changed it. */
export interface RecordedResponse {
  /** Its request as the browser reported it while it was recorded. */
  readonly request: PageRequest;
  /** Content hash of the body, content encoding undone; `null` where there is none. */
  readonly bodyHash: string | null;
  /** Bytes of that body. */
  readonly bodyBytes: number;
  /** Bytes of the body on the wire, as near to them as the recording tells. */
  readonly wireBytes: number;
  /** How the body is encoded on the wire. */
  readonly encoding: ContentEncoding;
  /** Milliseconds that the server needed for it, without the line. */
  readonly thinking: number;
  /** Whether it was requested only once the page was scrolled. */
  readonly onScroll: boolean;
}

export const contentEncodings = ['identity', 'gzip', 'deflate', 'br'] as const;
export type ContentEncoding = (typeof contentEncodings)[number];

/** One load of a page with everything that it was sent. */
export interface Recording {
  /** The address that was asked for. */
  readonly page: string;
  /** The load itself, until it was at rest and before it was scrolled. */
  readonly run: Run;
  /** In the order of the requests. */
  readonly responses: readonly RecordedResponse[];
  /** Hosts (with their port, where it is not the usual one) that are replayed over HTTP/2. */
  readonly multiplexed: ReadonlySet<string>;
}

/** The encoding that a response declares. */
export function encodingOf({
  responseHeaders,
}: Pick<PageRequest, 'responseHeaders'>): ContentEncoding {
  const declared = headerValue(responseHeaders, 'content-encoding').toLowerCase().trim();
  return (
    contentEncodings.find((one) => one === declared) ?? (declared === '' ? 'identity' : 'gzip')
  );
}

/** The value of a header, or an empty text; `name` in lower case. */
export function headerValue(headers: PageRequest['responseHeaders'], name: string): string {
  return headers.find((header) => header.name.toLowerCase() === name)?.value ?? '';
}

/** The response with one header set; `null` takes it out. */
export function withHeader(
  response: RecordedResponse,
  name: string,
  value: string | null,
): RecordedResponse {
  const { request } = response;
  const others = request.responseHeaders.filter((header) => header.name.toLowerCase() !== name);
  const responseHeaders = value === null ? others : [...others, { name, value }];
  return { ...response, request: { ...request, responseHeaders } };
}

/** The response with another body. What it weighs on the wire is known only once it is encoded. */
export function withBody(
  response: RecordedResponse,
  body: { readonly hash: string; readonly bytes: number },
): RecordedResponse {
  const ratio = response.bodyBytes === 0 ? 1 : response.wireBytes / response.bodyBytes;
  return {
    ...response,
    bodyHash: body.hash,
    bodyBytes: body.bytes,
    wireBytes: Math.round(body.bytes * (response.encoding === 'identity' ? 1 : ratio)),
  };
}
