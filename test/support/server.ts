import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { onTestFinished } from 'vitest';

/** One answer of a test server; whatever it says is true by construction. */
export interface Answer {
  readonly status?: number;
  readonly type?: string;
  readonly body?: string | Buffer;
  readonly location?: string;
  /** Milliseconds before the headers are sent. */
  readonly wait?: number;
  /** Milliseconds between the two halves of the body. */
  readonly pauseInBody?: number;
  /** Closes the connection without a word. */
  readonly hangUp?: boolean;
}

export interface TestServer {
  readonly origin: string;
  /** Paths that were asked for, in order. */
  readonly asked: string[];
}

/** Serves answers by path on loopback until the test is over; other paths are 404. */
export async function serve(answers: Readonly<Record<string, Answer>>): Promise<TestServer> {
  const asked: string[] = [];
  const server = createServer((request, response) => {
    const path = request.url ?? '/';
    asked.push(path);
    const answer = answers[path] ?? { status: 404, type: 'text/plain', body: 'none' };
    if (answer.hangUp) return void request.socket.destroy();
    const body = Buffer.from(answer.body ?? '');
    setTimeout(() => {
      response.writeHead(answer.status ?? (answer.location ? 302 : 200), {
        'content-type': answer.type ?? 'text/html; charset=utf-8',
        'content-length': body.length,
        ...(answer.location ? { location: answer.location } : {}),
      });
      if (!answer.pauseInBody) return void response.end(body);
      response.write(body.subarray(0, body.length >> 1));
      setTimeout(() => response.end(body.subarray(body.length >> 1)), answer.pauseInBody);
    }, answer.wait ?? 0);
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  onTestFinished(async () => {
    server.closeAllConnections();
    server.close();
    await once(server, 'close');
  });
  return { origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, asked };
}
