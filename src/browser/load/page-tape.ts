import pLimit from 'p-limit';
import { isInDocument } from '../../core/address/address.js';
import { messageOf } from '../../core/base/errors.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Channel } from '../chromium/channel.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import type { RecordedRequest } from '../network/recorded-request.js';
import { untilQuiet } from '../network/until-quiet.js';
import type { LoadObserver, RestingPage } from './cold-load.js';

/** A request with what became of its body. */
export interface TapedRequest {
  readonly request: PageRequest;
  /** As `keep` named it; `null` where there is none. */
  readonly body: TapedBody | null;
  /** Why there is none, where there was one. */
  readonly missing: string | null;
  /** Whether it was requested only once the page was scrolled. */
  readonly onScroll: boolean;
}

export interface TapedBody {
  readonly hash: string;
  readonly bytes: number;
}

/** Milliseconds that scripts are given at each screen. */
const scriptTime = 160;

/** Bodies that are left to the browser until the load is over: it drops the oldest ones beyond 256 MB. */
const mostUnread = 128e6;

/** Bodies that are read at the same time. */
const atOnce = 4;

/** A response whose body the browser has. */
interface Arrived {
  readonly request: RecordedRequest;
  readonly from: Channel;
}

/**
 * Records a load with the bodies of all responses, and scrolls the page in the end, so that lazy images are there, too.
 * To read a body takes the browser and this process the time in which the next responses arrive, and what they waited would
 * be taken for the thinking time of their servers: bodies are read once the load is over.
 */
export class PageTape implements LoadObserver {
  readonly readsBodies = true;
  readonly #keep: (body: Buffer) => Promise<TapedBody>;
  readonly #bodies = new Map<RecordedRequest, Promise<TapedBody | string>>();
  readonly #limit = pLimit(atOnce);
  #unread: Arrived[] = [];
  #unreadBytes = 0;
  #requests: readonly TapedRequest[] = [];

  /** @param keep stores a body */
  constructor(keep: (body: Buffer) => Promise<TapedBody>) {
    this.#keep = keep;
  }

  /** Every request of the load, in the order in which they began; none before it is at rest. */
  get requests(): readonly TapedRequest[] {
    return this.#requests;
  }

  begin(recorder: NetworkRecorder): void {
    recorder.onFinished((request, from) => {
      if (isInDocument(request.url)) return;
      // A worker, or a frame of another process, may be gone by then.
      if (!recorder.isOfTab(from)) {
        this.#read({ request, from });
        return;
      }
      this.#unread.push({ request, from });
      this.#unreadBytes += request.bodyBytes;
      if (this.#unreadBytes > mostUnread) this.#readAll();
    });
    recorder.onLeaving(() => {
      this.#readAll();
    });
  }

  async atRest({ channel, world, recorder, limits, told }: RestingPage): Promise<void> {
    const loaded = recorder.recorded.length;
    this.#readAll();
    await Promise.all(this.#bodies.values());
    await world.call('scrollThrough', scriptTime, scriptTime);
    await untilQuiet(channel, recorder, limits);
    this.#readAll();
    const taped = recorder.recorded
      .map((request, index) => ({ request, onScroll: index >= loaded }))
      .filter(({ request }) => !isInDocument(request.url));
    this.#requests = await Promise.all(
      taped.map(async ({ request, onScroll }) => {
        const found = (await this.#bodies.get(request)) ?? null;
        const missing = typeof found === 'string' ? found : null;
        return {
          ...{ request: told(request), onScroll, missing },
          body: typeof found === 'string' ? null : found,
        };
      }),
    );
  }

  #readAll(): void {
    for (const one of this.#unread) this.#read(one);
    this.#unread = [];
    this.#unreadBytes = 0;
  }

  #read({ request, from }: Arrived): void {
    this.#bodies.set(
      request,
      this.#limit(() => this.#bodyOf(request, from)),
    );
  }

  async #bodyOf(request: RecordedRequest, from: Channel): Promise<TapedBody | string> {
    try {
      const { body, base64Encoded } = await from.send('Network.getResponseBody', {
        requestId: request.id,
      });
      return await this.#keep(Buffer.from(body, base64Encoded ? 'base64' : 'utf8'));
    } catch (error) {
      return `its body could not be read: ${messageOf(error)}`;
    }
  }
}
