import { request as requestPlain } from 'node:http';
import { request as requestSecure } from 'node:https';
import type { IncomingMessage } from 'node:http';
import { brotliDecompressSync, gunzipSync, inflateSync } from 'node:zlib';
import { fetchWords } from './fetch-words.js';
import { lookupAmong } from '../reach/connect-to.js';
import type { Reach } from '../reach/reach.js';

/** A file that a server sent, cut at the limit. */
export interface FetchedFile {
  readonly status: number;
  readonly body: Buffer;
}

export interface FetchOptions {
  /** Which machines may be connected to. */
  readonly reach: Reach;
  readonly userAgent: string;
  /** Headers of this request alone. */
  readonly headers?: Readonly<Record<string, string>> | undefined;
  /** Additional headers for requests to an address. */
  readonly headersFor?: (address: string) => Readonly<Record<string, string>>;
  /** Accepts certificates that do not verify. */
  readonly anyCertificate?: boolean | undefined;
  /** The most bytes that are read. */
  readonly limit: number;
  /** Milliseconds for all of it. */
  readonly timeout: number;
}

const maxRedirects = 5;

/**
 * Fetches a small file: follows redirects, reads no more than the limit, waits no longer than allowed.
 *
 * @throws Error in plain words when no answer comes, or when it leads where pages may not lead.
 */
export async function fetchFile(url: string, options: FetchOptions): Promise<FetchedFile> {
  return follow(url, options).catch((error: unknown) => {
    throw new Error(fetchWords(error, options.timeout), { cause: error });
  });
}

async function follow(url: string, options: FetchOptions): Promise<FetchedFile> {
  const signal = AbortSignal.timeout(options.timeout);
  let at = new URL(url);
  for (let hop = 0; hop <= maxRedirects; hop++) {
    const answer = await ask(at, options, signal);
    const { statusCode = 0, headers } = answer;
    if (statusCode >= 300 && statusCode < 400 && headers.location) {
      answer.destroy();
      at = new URL(headers.location, at);
      if (!/^https?:$/.test(at.protocol)) throw new Error(`it redirects to ${at.protocol}`);
      continue;
    }
    const body = await readUpTo(answer, options.limit);
    return { status: statusCode, body: decoded(body, headers['content-encoding'], options.limit) };
  }
  throw new Error('redirect loop');
}

async function ask(
  url: URL,
  { reach, userAgent, headers, headersFor, anyCertificate }: FetchOptions,
  signal: AbortSignal,
): Promise<IncomingMessage> {
  const isSecure = url.protocol === 'https:';
  const request = isSecure ? requestSecure : requestPlain;
  const name = url.hostname.replace(/^\[|\]$/g, '');
  const place = await reach.placeOf(name, Number(url.port) || (isSecure ? 443 : 80));
  return new Promise((resolve, reject) => {
    request(
      {
        hostname: place.host,
        port: place.port,
        ...(place.addresses && { lookup: lookupAmong(place.addresses) }),
        path: url.pathname + url.search,
        servername: url.hostname,
        headers: {
          ...{ host: url.host, 'user-agent': userAgent },
          ...headers,
          ...headersFor?.(url.href),
        },
        rejectUnauthorized: !anyCertificate,
        signal,
      },
      resolve,
    )
      .on('error', reject)
      .end();
  });
}

async function readUpTo(answer: IncomingMessage, limit: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of answer as AsyncIterable<Buffer>) {
    parts.push(part);
    length += part.length;
    if (length >= limit) break;
  }
  answer.destroy();
  return Buffer.concat(parts).subarray(0, limit);
}

const decoders = {
  gzip: gunzipSync,
  'x-gzip': gunzipSync,
  br: brotliDecompressSync,
  deflate: inflateSync,
};

/** A body without its content encoding: some servers compress what nobody has asked them to. What cannot be undone stays. */
function decoded(body: Buffer, encoding: string | undefined, limit: number): Buffer {
  const decoder = decoders[(encoding ?? '').trim().toLowerCase() as keyof typeof decoders];
  if (!decoder) return body;
  try {
    return decoder(body, { maxOutputLength: limit });
  } catch {
    return body;
  }
}
