import { once } from 'node:events';
import { createSecureServer } from 'node:http2';
import type { Http2ServerRequest, Http2ServerResponse } from 'node:http2';
import { createServer } from 'node:https';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { AddressInfo, Socket } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { gzipSync } from 'node:zlib';
import { certificate, privateKey } from '../certificate.js';
import { digits } from './sin.js';
import type { ArchiveAnswer, Place, Sin, SinParts } from './sin.js';

/** A page with some sins, each committed or mended. */
export interface SinPage {
  readonly title: string;
  readonly place: Place;
  readonly sins: readonly { readonly sin: Sin; readonly isMended: boolean }[];
  /** Markup beside that of its sins. */
  readonly head?: string;
  readonly body?: string;
  readonly files?: Readonly<Record<string, ArchiveAnswer>>;
}

export interface ServedArchive {
  /** The addresses under which the pages are found, in their order. */
  readonly found: readonly string[];
  /** Where the made-up hosts really are, as `127.0.0.1:port`, by host name. */
  readonly hosts: Readonly<Record<string, string>>;
  close(): Promise<void>;
}

/** A response whose body is there: to make one takes no time while a page is loaded. */
type ReadyAnswer = Omit<ArchiveAnswer, 'body'> & {
  readonly body?: string | Buffer | undefined;
};

type Request = IncomingMessage | Http2ServerRequest;
type Response = ServerResponse | Http2ServerResponse;

/**
 * Serves pages over TLS on loopback: by HTTP/2, and hosts whose names begin with `h1.` by HTTP/1.1 alone.
 *
 * @param indexOf makes one more page, of the addresses under which the others are found
 */
export async function serveSins(
  pages: readonly SinPage[],
  indexOf?: (found: readonly string[]) => SinPage,
): Promise<ServedArchive> {
  const built = pages.map(build);
  const found = built.map(({ page, foundAt }) => foundAt ?? page.place.page);
  if (indexOf) built.push(build(indexOf(found)));
  const answers = new Map<string, ReadyAnswer>();
  for (const { page, parts, foundAt } of built) {
    const files = [page, ...parts].flatMap(({ files: own = {} }) => Object.entries(own));
    for (const [url, answer] of files) answers.set(url, { ...answer, body: await answer.body });
    answers.set(page.place.page, pageAnswer(page, parts));
    if (foundAt !== undefined) answers.set(foundAt, { location: page.place.page });
  }
  const listener = (request: Request, response: Response) => {
    const host = request.headers[':authority'] ?? request.headers.host ?? '';
    const url = `https://${String(host).replace(/:\d+$/, '')}${request.url ?? '/'}`;
    send(response, answers.get(url) ?? missing).catch(() => response.destroy());
  };
  const tls = { key: privateKey, cert: certificate };
  const [modern, old] = [createSecureServer(tls, listener), createServer(tls, listener)];
  const sockets = new Set<Socket>();
  for (const server of [modern, old])
    server.on('connection', (socket: Socket) => {
      sockets.add(socket);
      socket.once('close', () => sockets.delete(socket));
    });
  const [here, there] = await Promise.all([modern, old].map(listening));
  const names = [...answers.keys()].map((url) => new URL(url).hostname);
  const hosts = names.map((name) => [name, name.startsWith('h1.') ? there! : here!]);
  return {
    found,
    hosts: Object.fromEntries(hosts) as Record<string, string>,
    close: async () => {
      const closed = [modern, old].map(
        (server) => new Promise<void>((resolve) => void server.close(() => resolve())),
      );
      for (const socket of sockets) socket.destroy();
      await Promise.all(closed);
    },
  };
}

interface BuiltPage {
  readonly page: SinPage;
  readonly parts: readonly SinParts[];
  readonly foundAt: string | undefined;
}

function build(page: SinPage): BuiltPage {
  const parts = page.sins.map(({ sin, isMended }) => sin.parts(page.place, isMended));
  return { page, parts, foundAt: parts.find(({ foundAt }) => foundAt)?.foundAt };
}

async function listening(
  server: { listen(port: number, host: string): unknown; address(): unknown } & NodeJS.EventEmitter,
) {
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return `127.0.0.1:${(server.address() as AddressInfo).port}`;
}

const missing: ReadyAnswer = {
  status: 404,
  type: 'text/plain',
  body: 'Nothing here but sand.\n',
};

function pageAnswer(
  { title, head = '', body = '' }: SinPage,
  parts: readonly SinParts[],
): ReadyAnswer {
  const all = (part: 'head' | 'body') => parts.map((one) => one[part] ?? '').join('\n');
  const html = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · Brindle Bay Kite Festival</title>
<link rel="icon" href="data:,">
${all('head')}${head}
</head>
<body>
<main>
<h1>${title}</h1>
${all('body')}${body}
</main>
</body>
</html>
`;
  const special = parts.flatMap(({ answer }) => answer ?? []);
  return {
    type: 'text/html; charset=utf-8',
    body: html,
    headers: special.reduce<Record<string, string>>(
      (sum, { headers }) => ({ ...sum, ...headers }),
      { 'cache-control': 'no-cache' },
    ),
    delay: Math.max(0, ...special.map(({ delay = 0 }) => delay)),
  };
}

async function send(response: Response, answer: ReadyAnswer): Promise<void> {
  const { status = 200, type = '', body = '', delay = 0, location, isPlain = false } = answer;
  if (delay > 0) await pause(delay);
  if (location !== undefined) return end(response, 302, { location }, '');
  const isText = /text|svg|javascript|json/.test(type) && !isPlain && body.length > 200;
  const sent = isText ? gzipSync(body, { level: 9 }) : Buffer.from(body);
  const headers: Record<string, string> = {
    'content-type': type,
    'content-length': String(sent.length),
    'cache-control': 'max-age=31536000, immutable',
    etag: `"${digits(body.toString('latin1')).slice(0, 16)}"`,
    ...(isText && { 'content-encoding': 'gzip' }),
    // Other hosts of the site may use what it has.
    'access-control-allow-origin': '*',
    ...answer.headers,
  };
  const told = Object.entries(headers).filter(([, value]) => value !== '');
  end(response, status, Object.fromEntries(told), sent);
}

function end(
  response: Response,
  status: number,
  headers: Record<string, string>,
  body: string | Buffer,
): void {
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  response.statusCode = status;
  // The two kinds of response agree in all but their types.
  (response as ServerResponse).end(body);
}
