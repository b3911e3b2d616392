import { once } from 'node:events';
import { createServer } from 'node:http';
import type { IncomingMessage, RequestListener, Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { onTestFinished } from 'vitest';
import { certificate, privateKey } from '../../demo/certificate.js';

/** Says when a server is to be closed: `afterAll` where several tests share it. */
type AtEnd = (tidy: () => Promise<void>) => void;

/** One answer of a test server; whatever it says is true by construction. */
export interface Answer {
  readonly status?: number;
  readonly type?: string;
  readonly body?: string | Buffer;
  readonly location?: string;
  readonly headers?: Readonly<Record<string, string>>;
  /** Milliseconds before the headers are sent. */
  readonly wait?: number;
  /** Milliseconds between the two halves of the body. */
  readonly pauseInBody?: number;
  /** Sends the body and never ends the answer. */
  readonly endless?: boolean;
  /** Closes the connection without a word. */
  readonly hangUp?: boolean;
}

/** An answer, or what makes one of a request. */
export type Answers = Readonly<
  Record<string, Answer | ((request: IncomingMessage) => Answer | undefined)>
>;

export interface TestServer {
  readonly origin: string;
  /** Where it is, as `address:port`. */
  readonly address: string;
  /** Paths that were asked for, in order. */
  readonly asked: string[];
  /** How many connections were made to it. */
  readonly connections: () => number;
}

/**
 * Serves answers on loopback until the test is over; what is not there is 404.
 *
 * @param answers by path, or by `//host/path` for one host alone
 */
export async function serve(answers: Answers, atEnd: AtEnd = onTestFinished): Promise<TestServer> {
  const asked: string[] = [];
  return listen(createServer(listener(answers, asked)), 'http', asked, atEnd);
}

/** The same over TLS, with a certificate that nobody has signed. */
export async function serveSecurely(answers: Answers): Promise<TestServer> {
  const asked: string[] = [];
  const server = createSecureServer(
    { key: privateKey, cert: certificate },
    listener(answers, asked),
  );
  return listen(server, 'https', asked, onTestFinished);
}

function listener(answers: Answers, asked: string[]): RequestListener {
  return (request, response) => {
    const path = request.url ?? '/';
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    asked.push(path);
    const found = answers[`//${host}${path}`] ?? answers[path];
    const answer = (typeof found === 'function' ? found(request) : found) ?? {
      status: 404,
      type: 'text/plain',
      body: 'none',
    };
    if (answer.hangUp) return void request.socket.destroy();
    const body = Buffer.from(answer.body ?? '');
    setTimeout(() => {
      response.writeHead(answer.status ?? (answer.location ? 302 : 200), {
        'content-type': answer.type ?? 'text/html; charset=utf-8',
        ...(answer.endless ? {} : { 'content-length': body.length }),
        ...(answer.location ? { location: answer.location } : {}),
        ...answer.headers,
      });
      if (answer.endless) return void response.write(body);
      if (!answer.pauseInBody) return void response.end(body);
      response.write(body.subarray(0, body.length >> 1));
      setTimeout(() => response.end(body.subarray(body.length >> 1)), answer.pauseInBody);
    }, answer.wait ?? 0);
  };
}

async function listen(
  server: Server,
  scheme: string,
  asked: string[],
  atEnd: AtEnd,
): Promise<TestServer> {
  let connections = 0;
  server.on('connection', () => connections++);
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  atEnd(async () => {
    server.closeAllConnections();
    server.close();
    await once(server, 'close');
  });
  const address = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { origin: `${scheme}://${address}`, address, asked, connections: () => connections };
}
