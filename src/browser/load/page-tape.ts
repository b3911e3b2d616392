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

/** Records a load with the bodies of all responses, and scrolls the page in the end, so that lazy images are there, too. */
export class PageTape implements LoadObserver {
  readonly readsBodies = true;
  readonly #keep: (body: Buffer) => Promise<TapedBody>;
  readonly #bodies = new Map<RecordedRequest, Promise<TapedBody | string>>();
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
      if (!isInDocument(request.url)) this.#bodies.set(request, this.#read(request, from));
    });
  }

  async atRest({ channel, world, recorder, limits, told }: RestingPage): Promise<void> {
    const loaded = recorder.recorded.length;
    await world.call('scrollThrough', scriptTime, scriptTime);
    await untilQuiet(channel, recorder, limits);
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

  async #read(request: RecordedRequest, from: Channel): Promise<TapedBody | string> {
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
