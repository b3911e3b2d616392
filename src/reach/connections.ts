import { once } from 'node:events';
import { createServer } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import { setTimeout as after } from 'node:timers/promises';
import { connectTo } from './connect-to.js';
import { isLoopback } from './host-map.js';
import type { Place } from './host-map.js';
import { RefusedError } from './reach.js';

/** A proxy through which a browser connects. */
export interface Connections {
  /** Where the browser finds it. */
  readonly port: number;
  close(): Promise<void>;
}

/** Says where a host really is. */
export type PlaceOf = (host: string, port: number) => Place | Promise<Place>;

type OnConnected = (host: string, address: string) => void;

/**
 * A SOCKS server (version 5, RFC 1928) on loopback that connects to where it is told. Bytes pass unchanged.
 *
 * Connecting to loopback takes no time, and the browser's own throttling only starts once a connection is open: such a
 * connection is reported a round trip late, as long as a TCP handshake takes, and the server's part of a TLS handshake is
 * held back for another (TLS 1.3, RFC 8446, section 2).
 *
 * @param latency milliseconds of a round trip
 * @param placeOf where a host is; it throws for one that must not be connected to
 * @param onConnected called with the address that a host was found at
 */
export async function openConnections(
  latency: number,
  placeOf: PlaceOf,
  onConnected: OnConnected = () => {},
): Promise<Connections> {
  const open = new Set<Socket>();
  const server = createServer((browser) => {
    open.add(browser.on('close', () => open.delete(browser)));
    browser.on('error', () => browser.destroy());
    browser.setNoDelay(true);
    serve(browser, latency, placeOf, onConnected).catch(() => browser.destroy());
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    port: (server.address() as AddressInfo).port,
    close: async () => {
      for (const socket of open) socket.destroy();
      server.close();
      await once(server, 'close');
    },
  };
}

const version = 5;
const noPassword = 0;
const connectCommand = 1;
const addressTypes = { ipv4: 1, name: 3, ipv6: 4 } as const;
/** The response to the browser; it has no use for the address that was bound. */
const reply = (status: number) =>
  Buffer.from([version, status, 0, addressTypes.ipv4, 0, 0, 0, 0, 0, 0]);
const granted = 0;
/** Not allowed by the ruleset; connection refused. */
const [forbidden, refused] = [2, 5];

async function serve(
  browser: Socket,
  latency: number,
  placeOf: PlaceOf,
  onConnected: OnConnected,
): Promise<void> {
  const bytes = new Incoming(browser);
  const [, methods] = await bytes.take(2);
  await bytes.take(methods!);
  browser.write(Buffer.from([version, noPassword]));
  const [, command, , type] = await bytes.take(4);
  const host = await readHost(bytes, type!);
  const port = (await bytes.take(2)).readUInt16BE();
  if (command !== connectCommand) throw new Error('only connections are served');
  const begun = performance.now();
  const target = await Promise.resolve(placeOf(host, port)).catch((error: unknown) => {
    browser.end(reply(error instanceof RefusedError ? forbidden : refused));
    return undefined;
  });
  if (!target || browser.destroyed) return;
  const site = connectTo(target);
  site.setNoDelay(true);
  browser.on('close', () => site.destroy());
  site.on('close', () => browser.destroy());
  const failed = await Promise.race([
    once(site, 'connect').then(() => false),
    once(site, 'error').then(() => true),
  ]).catch(() => true);
  site.on('error', () => browser.destroy());
  if (failed) {
    browser.end(reply(refused));
    return;
  }
  onConnected(host, site.remoteAddress ?? '');
  const isHere = isLoopback(target.host);
  if (isHere) await after(Math.max(0, begun + latency - performance.now()));
  bytes.end();
  browser.write(reply(granted));
  if (isHere && latency > 0) holdHandshake(browser, site, latency);
  else site.pipe(browser);
  browser.pipe(site);
}

/** The first byte of a TLS handshake (RFC 8446, section 5.1). */
const handshake = 22;

/** Passes on what a server sends; its part of a TLS handshake a round trip late. */
function holdHandshake(browser: Socket, site: Socket, latency: number): void {
  let isTls = false;
  browser.once('data', (chunk: Buffer) => (isTls = chunk[0] === handshake));
  site.once('data', (first: Buffer) => {
    site.pause();
    const pass = () => {
      if (browser.destroyed) return;
      browser.write(first);
      site.pipe(browser);
    };
    if (isTls) setTimeout(pass, latency);
    else pass();
  });
}

async function readHost(bytes: Incoming, type: number): Promise<string> {
  if (type === addressTypes.name) {
    const [length] = await bytes.take(1);
    return (await bytes.take(length!)).toString('latin1');
  }
  if (type === addressTypes.ipv4) return [...(await bytes.take(4))].join('.');
  const address = await bytes.take(16);
  const parts = Array.from({ length: 8 }, (_, at) => address.readUInt16BE(at * 2).toString(16));
  // In the one form that addresses of pages have.
  return new URL(`http://[${parts.join(':')}]`).hostname.slice(1, -1);
}

/** Reads a socket a given number of bytes at a time. */
class Incoming {
  readonly #socket: Socket;
  readonly #note: (chunk: Buffer) => void;
  #held = Buffer.alloc(0);
  #wake: () => void = () => {};

  constructor(socket: Socket) {
    this.#socket = socket;
    this.#note = (chunk) => {
      this.#held = Buffer.concat([this.#held, chunk]);
      this.#wake();
    };
    socket.on('data', this.#note);
    socket.on('close', () => this.#wake());
  }

  async take(count: number): Promise<Buffer> {
    while (this.#held.length < count) {
      if (this.#socket.destroyed) throw new Error('the browser has gone');
      await new Promise<void>((resolve) => (this.#wake = resolve));
    }
    const taken = this.#held.subarray(0, count);
    this.#held = this.#held.subarray(count);
    return taken;
  }

  /** Hands the socket to another reader, with the bytes not yet read. */
  end(): void {
    this.#socket.off('data', this.#note);
    this.#socket.pause();
    if (this.#held.length > 0) this.#socket.unshift(this.#held);
  }
}
