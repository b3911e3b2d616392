import { request as requestPlain } from 'node:http';
import { request as requestSecure } from 'node:https';
import type { IncomingMessage } from 'node:http';

/** A file that a server sent, cut at the limit. */
export interface FetchedFile {
  readonly status: number;
  readonly body: Buffer;
}

export interface FetchOptions {
  /** The real place of each host, as `address:port`; a name may begin with `*.`. */
  readonly hosts: Readonly<Record<string, string>>;
  readonly userAgent: string;
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
 * @throws Error when no answer comes.
 */
export async function fetchFile(url: string, options: FetchOptions): Promise<FetchedFile> {
  const signal = AbortSignal.timeout(options.timeout);
  let at = new URL(url);
  for (let hop = 0; hop <= maxRedirects; hop++) {
    const answer = await ask(at, options, signal);
    const { statusCode = 0, headers } = answer;
    if (statusCode >= 300 && statusCode < 400 && headers.location) {
      answer.destroy();
      at = new URL(headers.location, at);
      continue;
    }
    return { status: statusCode, body: await readUpTo(answer, options.limit) };
  }
  throw new Error('redirect loop');
}

/** The mapping of a host: by its name, else by a `*.` that matches it. */
export function mappedAddress(
  host: string,
  hosts: Readonly<Record<string, string>>,
): { readonly hostname: string; readonly port: string } | undefined {
  const stars = Object.keys(hosts).filter((name) => name.startsWith('*.'));
  const address = hosts[host] ?? hosts[stars.find((name) => host.endsWith(name.slice(1))) ?? ''];
  const match = /^\[?(.+?)\]?:(\d+)$/.exec(address ?? '');
  return match ? { hostname: match[1]!, port: match[2]! } : undefined;
}

function ask(
  url: URL,
  { hosts, userAgent, headersFor, anyCertificate }: FetchOptions,
  signal: AbortSignal,
): Promise<IncomingMessage> {
  const request = url.protocol === 'https:' ? requestSecure : requestPlain;
  const { hostname, port } = mappedAddress(url.hostname, hosts) ?? url;
  return new Promise((resolve, reject) => {
    request(
      {
        hostname,
        port,
        path: url.pathname + url.search,
        servername: url.hostname,
        headers: { host: url.host, 'user-agent': userAgent, ...headersFor?.(url.href) },
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
