import { LRUCache } from 'lru-cache';
import type { Channel } from '../chromium/channel.js';
import { messageOf } from '../../core/base/errors.js';
import type { NetworkRecorder } from './network-recorder.js';
import { cameFromNetwork, headerOf } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

/** An image body from the network, and its bytes on the wire. */
export interface FetchedBody {
  readonly contentHash: string;
  readonly transferBytes: number;
}

/** Stores a body and returns its content hash; `declaredType` is the type the server gave. */
export type KeepBody = (body: Buffer, declaredType: string) => Promise<string>;

/** The most addresses whose responses are remembered, for when the browser's cache responds in their place. */
export const remembered = 5_000;

/** The largest body that is read from the browser. */
const maxBodyBytes = 64 * 1024 * 1024;

/**
 * Brings image bodies out of the browser as they arrive. Tabs that share a cache share one of these:
 * where the cache answered, the body of the first fetch counts, with the bytes that it cost.
 */
export class BodyCollector {
  readonly #keep: KeepBody;
  /** Of the most recent addresses: a survey sees more than memory should hold. */
  readonly #byAddress = new LRUCache<string, Promise<FetchedBody | string>>({ max: remembered });

  constructor(keep: KeepBody) {
    this.#keep = keep;
  }

  /** Collects every image that the recorder reports as finished. */
  watch(cdp: Channel, recorder: NetworkRecorder): void {
    recorder.onFinished((request) => {
      const known = !cameFromNetwork(request) && this.#byAddress.has(request.url);
      if (!isImage(request) || known) return;
      const fetched = this.#fetch(cdp, request);
      this.#byAddress.set(request.url, fetched);
      // What could not be read this time may be the next.
      void fetched.then((body) => {
        if (typeof body === 'string' && this.#byAddress.get(request.url) === fetched)
          this.#byAddress.delete(request.url);
      });
    });
  }

  /** The body of an address, or why there is none, in words. */
  async find(address: string): Promise<FetchedBody | string> {
    return (await this.#byAddress.get(address)) ?? 'its body was not seen on the network';
  }

  async #fetch(cdp: Channel, request: RecordedRequest): Promise<FetchedBody | string> {
    if (request.bodyBytes > maxBodyBytes) return `its body is larger than ${maxBodyBytes} bytes`;
    try {
      const bytes = await readBody(cdp, request);
      const contentHash = await this.#keep(bytes, request.mediaType);
      return { contentHash, transferBytes: Math.round(request.transferBytes) };
    } catch (error) {
      return `its body could not be read: ${messageOf(error)}`;
    }
  }
}

/**
 * The body of a response. The browser drops a body as soon as its first bytes show that it is not an image;
 * such a body is requested again, as plain data.
 */
async function readBody(cdp: Channel, request: RecordedRequest): Promise<Buffer> {
  const { body, base64Encoded } = await cdp.send('Network.getResponseBody', {
    requestId: request.id,
  });
  const bytes = Buffer.from(body, base64Encoded ? 'base64' : 'utf8');
  if (bytes.length > 0 || Number(headerOf(request, 'content-length')) === 0) return bytes;
  return loadAgain(cdp, request.url);
}

async function loadAgain(cdp: Channel, url: string): Promise<Buffer> {
  const { frameTree } = await cdp.send('Page.getFrameTree');
  const { resource } = await cdp.send('Network.loadNetworkResource', {
    frameId: frameTree.frame.id,
    url,
    options: { disableCache: false, includeCredentials: true },
  });
  if (!resource.success || !resource.stream)
    throw new Error(resource.netErrorName ?? 'no response');
  const parts: Buffer[] = [];
  let length = 0;
  for (let ended = false; !ended && length < maxBodyBytes;) {
    const { data, eof, base64Encoded } = await cdp.send('IO.read', { handle: resource.stream });
    const part = Buffer.from(data, base64Encoded ? 'base64' : 'utf8');
    parts.push(part);
    length += part.length;
    ended = eof;
  }
  await cdp.send('IO.close', { handle: resource.stream });
  return Buffer.concat(parts);
}

/** Whether a response was requested as an image or declares itself one. */
export function isImage({ resourceType, mediaType, status }: RecordedRequest): boolean {
  const asked = resourceType === 'Image' || mediaType.startsWith('image/');
  return asked && status >= 200 && status < 300;
}
