import { once } from 'node:events';
import { createServer } from 'node:http';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import { createSecureServer } from 'node:http2';
import type { Http2ServerRequest, Http2ServerResponse, ServerHttp2Session } from 'node:http2';
import { createServer as createTlsServer } from 'node:https';
import type { AddressInfo, Server as NetServer, Socket } from 'node:net';
import { setTimeout as after } from 'node:timers/promises';
import type { Header } from '../core/base/headers.js';
import type { ThrowAwayCertificate } from './certificate.js';

/** What a replay sends for a request. */
export interface Replayed {
  readonly status: number;
  readonly headers: readonly Header[];
  /** As it is sent, content encoding and all. */
  readonly body: Buffer;
  /** Milliseconds before it begins. */
  readonly thinking: number;
  /** Whether the connection is closed after it. */
  readonly closes: boolean;
}

/** What a replay is served from. */
export interface ReplaySource {
  /** `null` closes the connection without a response, as it was when it was recorded. */
  answer(method: string, url: string, referrer: string): Promise<Replayed | null>;
  /** The port that a host is served on, with what it speaks there. */
  protocolOf(host: string, port: number): 'http' | 'https' | 'h2';
}

export interface ReplayServer {
  /** The real place of a host. */
  readonly placeOf: (
    host: string,
    port: number,
  ) => { readonly host: string; readonly port: number };
  close(): Promise<void>;
}

type AnyRequest = IncomingMessage | Http2ServerRequest;
type AnyResponse = ServerResponse | Http2ServerResponse;

/** Connections wait for the next request as long as a load may take. */
const patience = 600_000;

/**
 * Serves a recording on loopback over real sockets: HTTP/1.1, HTTP/1.1 with TLS, and HTTP/2 with TLS, each on a port of its
 * own; hosts are told apart by the headers of their requests.
 */
export async function serveReplay(
  source: ReplaySource,
  { key, cert }: ThrowAwayCertificate,
): Promise<ReplayServer> {
  const handle = (scheme: 'http' | 'https') => (request: AnyRequest, response: AnyResponse) => {
    const respond = async () => {
      const host = request.headers[':authority'] ?? request.headers.host ?? '';
      const url = `${scheme}://${String(host)}${request.url ?? '/'}`;
      const referrer = String(request.headers.referer ?? '');
      const answer = await source.answer(request.method ?? 'GET', url, referrer);
      if (answer) await send(response, answer, request.method === 'HEAD');
      else request.socket.destroy();
    };
    respond().catch(() => request.socket.destroy());
  };
  const servers = {
    http: createServer({ keepAliveTimeout: patience }, handle('http')),
    https: createTlsServer({ key, cert, keepAliveTimeout: patience }, handle('https')),
    h2: createSecureServer({ key, cert }, handle('https')),
  };
  for (const server of [servers.http, servers.https]) server.requestTimeout = 0;
  const close = closer(Object.values(servers), servers.h2);
  for (const server of Object.values(servers)) {
    server.on('clientError', (_error: Error, socket: Socket) => socket.destroy());
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
  }
  const ports = new Map(
    Object.entries(servers).map(([name, server]) => [name, (server.address() as AddressInfo).port]),
  );
  return {
    placeOf: (host, port) => ({
      host: '127.0.0.1',
      port: ports.get(source.protocolOf(host, port))!,
    }),
    close,
  };
}

/** Closes servers together with the connections that are open. */
function closer(servers: readonly (NetServer | Server)[], multiplexed: NetServer) {
  const sockets = new Set<Socket>();
  const sessions = new Set<ServerHttp2Session>();
  for (const server of servers)
    server.on('connection', (socket: Socket) => {
      socket.setNoDelay(true);
      sockets.add(socket.on('close', () => sockets.delete(socket)));
    });
  multiplexed.on('session', (session: ServerHttp2Session) => {
    sessions.add(session.on('close', () => sessions.delete(session)));
    session.on('error', () => {});
  });
  return async () => {
    for (const session of sessions) session.destroy();
    for (const socket of sockets) socket.destroy();
    await Promise.all(servers.map((server) => new Promise((resolve) => server.close(resolve))));
  };
}

/** Headers of the connection, which the server writes itself. */
const ofConnection: ReadonlySet<string> = new Set([
  ...[
    'connection',
    'keep-alive',
    'transfer-encoding',
    'content-length',
    'date',
    'upgrade',
    'trailer',
  ],
]);

async function send(response: AnyResponse, answer: Replayed, bodiless: boolean): Promise<void> {
  const { status, headers, body, thinking, closes } = answer;
  if (thinking >= 1) await after(thinking);
  if (response.destroyed) return;
  response.statusCode = status;
  const repeated = new Map<string, string[]>();
  for (const { name, value } of headers) {
    const lower = name.toLowerCase();
    if (ofConnection.has(lower) || lower.startsWith(':')) continue;
    repeated.set(lower, [...(repeated.get(lower) ?? []), ...value.split('\n')]);
  }
  for (const [name, values] of repeated)
    (response as ServerResponse).setHeader(name, values.length === 1 ? values[0]! : values);
  if (closes && 'shouldKeepAlive' in response) response.shouldKeepAlive = false;
  const hasNone = status === 204 || status === 304 || status < 200;
  if (!hasNone) (response as ServerResponse).setHeader('content-length', body.length);
  if (hasNone || bodiless) response.end();
  else response.end(body);
}
