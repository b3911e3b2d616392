import { LRUCache } from 'lru-cache';
import { hostOf, keptAddress } from '../core/address/address.js';
import { maxValue, redactedValue } from '../core/base/headers.js';
import type { Header } from '../core/base/headers.js';
import { headerValue } from '../core/trial/recording.js';
import type { RecordedResponse, Recording } from '../core/trial/recording.js';
import { ResponseIndex } from '../core/trial/response-index.js';
import type { Replayed, ReplaySource } from './replay-server.js';
import { wireBody } from './wire-body.js';

/** Bodies that are kept in memory, of those that are sent as they are stored. */
const maxCached = 64_000_000;

/** Headers that would lead away from the replay, or promise what only the real server has. */
const left: ReadonlySet<string> = new Set(['alt-svc', 'set-cookie', 'content-encoding', 'expires']);

/** A request that the recording has no response for. */
export interface UnrecordedRequest {
  readonly url: string;
  readonly method: string;
  /** The page or file that asked for it, as far as the request says. */
  readonly referrer: string;
  readonly times: number;
}

/** A request that was given the response to another address. */
export interface AlikeRequest {
  readonly asked: string;
  readonly given: string;
}

/** The most requests that are told of. */
const maxTold = 200;

/** Sends what a recording has, and takes note of what it has not. */
export class RecordedSource implements ReplaySource {
  readonly #responses: readonly RecordedResponse[];
  readonly #index: ResponseIndex<RecordedResponse>;
  readonly #multiplexed: ReadonlySet<string>;
  readonly #secure: ReadonlySet<string>;
  readonly #read: (hash: string) => Promise<Buffer>;
  readonly #encoded = new Map<RecordedResponse, Buffer>();
  readonly #plain = new LRUCache<string, Buffer>({
    maxSize: maxCached,
    sizeCalculation: (body) => Math.max(1, body.length),
  });
  readonly #unrecorded = new Map<string, UnrecordedRequest>();
  readonly #alike = new Map<string, AlikeRequest>();

  /** @param read a stored body, by its hash */
  constructor({ responses, multiplexed }: Recording, read: (hash: string) => Promise<Buffer>) {
    // What the page itself gave up has no response; a later load may wait for one.
    this.#responses = responses.filter(
      ({ request }) => request.status > 0 || request.failure !== 'canceled',
    );
    this.#index = new ResponseIndex(this.#responses);
    this.#multiplexed = multiplexed;
    this.#secure = new Set(
      responses
        .filter(({ request }) => request.url.startsWith('https:'))
        .map(({ request }) => placeOf(request.url)),
    );
    this.#read = read;
  }

  /** Encodes every body, so that no load waits for that. */
  async prepare(): Promise<void> {
    for (const response of this.#responses)
      if (response.bodyHash !== null && response.encoding !== 'identity')
        this.#encoded.set(
          response,
          await wireBody(
            await this.#read(response.bodyHash),
            response.encoding,
            response.wireBytes,
          ),
        );
  }

  /** A new load begins. */
  begin(): void {
    this.#index.begin();
  }

  /** What was asked for and is not in the recording, in the order of the requests. */
  get unrecorded(): readonly UnrecordedRequest[] {
    return [...this.#unrecorded.values()];
  }

  get alike(): readonly AlikeRequest[] {
    return [...this.#alike.values()];
  }

  async answer(method: string, url: string, referrer: string): Promise<Replayed | null> {
    const address = keptAddress(url);
    const found = this.#index.find(method, address);
    const isWhole = found && (found.response.bodyHash !== null || !needsBody(found.response));
    if (!found || (!isWhole && found.response.request.status > 0)) {
      const known = this.#unrecorded.get(`${method} ${address}`);
      if (known || this.#unrecorded.size < maxTold)
        this.#unrecorded.set(`${method} ${address}`, {
          ...{ url: address, method, referrer },
          times: (known?.times ?? 0) + 1,
        });
      return notRecorded;
    }
    const { request } = found.response;
    if (found.kind === 'alike' && this.#alike.size < maxTold)
      this.#alike.set(address, { asked: address, given: request.url });
    return request.status === 0 ? null : this.#replay(found.response);
  }

  protocolOf(host: string, port: number): 'http' | 'https' | 'h2' {
    if (port !== 443 && !this.#secure.has(`${host}:${port}`)) return 'http';
    const place = port === 443 ? host : `${host}:${port}`;
    return this.#multiplexed.has(place) ? 'h2' : 'https';
  }

  async #replay(response: RecordedResponse): Promise<Replayed> {
    const { request, bodyHash, encoding, thinking } = response;
    const body = this.#encoded.get(response) ?? (bodyHash ? await this.#plainBody(bodyHash) : none);
    return {
      status: request.status,
      headers: [
        ...request.responseHeaders.filter(isReplayed),
        ...(encoding === 'identity' || body.length === 0
          ? []
          : [{ name: 'content-encoding', value: encoding }]),
      ],
      ...{ body, thinking },
      closes: headerValue(request.responseHeaders, 'connection').toLowerCase() === 'close',
    };
  }

  async #plainBody(hash: string): Promise<Buffer> {
    const kept = this.#plain.get(hash);
    if (kept) return kept;
    const body = await this.#read(hash);
    this.#plain.set(hash, body);
    return body;
  }
}

const none = Buffer.alloc(0);

const notRecorded: Replayed = {
  status: 404,
  headers: [
    { name: 'content-type', value: 'text/plain; charset=utf-8' },
    { name: 'access-control-allow-origin', value: '*' },
  ],
  body: Buffer.from('This address is not in the recording.\n'),
  thinking: 0,
  closes: false,
};

/** Host and port, the port always there. */
function placeOf(url: string): string {
  const host = hostOf(url);
  return /:\d+$/.test(host) ? host : `${host}:443`;
}

/** Whether a response cannot be replayed without its body. */
function needsBody({ request, wireBytes }: RecordedResponse): boolean {
  return request.status >= 200 && request.status < 300 && wireBytes > 0;
}

function isReplayed({ name, value }: Header): boolean {
  // A value that was cut off says something else than the whole.
  return !left.has(name.toLowerCase()) && value !== redactedValue && value.length < maxValue;
}
