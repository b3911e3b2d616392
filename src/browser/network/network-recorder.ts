import { keptAddress } from '../../core/address/address.js';
import type { Channel } from '../chromium/channel.js';
import { headersOf, isBlocking, respond } from './recorded-request.js';
import type { RecordedRequest } from './recorded-request.js';

interface OpenRequest {
  /** The process that reported it first. */
  readonly from: Channel;
  readonly request: RecordedRequest;
}

/** Called with a request that has ended, and with the process that reports it and may still have its body. */
type FinishListener = (request: RecordedRequest, from: Channel) => void;

/** The most requests that are kept of one page. */
const maxRequests = 10_000;

/**
 * Listens to the network of one tab and of the other processes added to it, and records every request of the
 * page loaded in it. Must be attached before the page is navigated.
 */
export class NetworkRecorder {
  #requests: RecordedRequest[] = [];
  readonly #open = new Map<string, OpenRequest>();
  /** Scripts of workers whose end has not been reported yet. */
  readonly #scripts = new Map<Channel, string>();
  /** Bytes of the cookies of requests: the browser may tell them before the request itself. */
  readonly #cookies = new Map<string, number>();
  /** Statuses of responses as they came over the wire. */
  readonly #statuses = new Map<string, number>();
  #begun = false;
  /** The latest moment that the browser has reported, in seconds on its monotonic clock. */
  #now = 0;
  #lastActivity = 0;
  #mainFrame: string;
  readonly #tab: Channel;
  readonly #bodies: boolean;
  readonly #listeners: FinishListener[] = [];
  readonly #leaving: (() => void)[] = [];

  private constructor(tab: Channel, mainFrame: string, bodies: boolean) {
    this.#tab = tab;
    this.#bodies = bodies;
    this.#mainFrame = mainFrame;
  }

  /** @param bodies whether bodies will be read: if not, the browser need not keep them, which costs it time */
  static async attach(tab: Channel, bodies = true): Promise<NetworkRecorder> {
    const recorder = new NetworkRecorder(tab, await mainFrameOf(tab), bodies);
    await recorder.#listen(tab, bodies);
    return recorder;
  }

  /** Calls back when a request's body has arrived, and for a response from the cache. */
  onFinished(listener: FinishListener): void {
    this.#listeners.push(listener);
  }

  /** Calls back when the page begins to become another one, whose bodies will take the place of its own. */
  onLeaving(listener: () => void): void {
    this.#leaving.push(listener);
  }

  /** Whether a process is that of the tab itself, which stays as long as the page does. */
  isOfTab(channel: Channel): boolean {
    return channel === this.#tab;
  }

  /** Listens to another process of the page as well; `url` is that of its script, if it is a worker. */
  async join(channel: Channel, url: string): Promise<void> {
    this.#scripts.set(channel, keptAddress(url));
    await this.#listen(channel, this.#bodies);
  }

  /** Ends the open requests of a process that has exited. */
  leave(channel: Channel): void {
    this.#scripts.delete(channel);
    for (const [id, { from, request }] of this.#open) {
      if (from !== channel) continue;
      this.#close(id, this.#now);
      request.failure = 'canceled';
    }
  }

  /** Forgets everything, so that the tab's next page is recorded from its beginning. */
  async restart(): Promise<void> {
    this.#begun = false;
    this.#requests = [];
    this.#cookies.clear();
    this.#statuses.clear();
    this.#open.clear();
    this.#mainFrame = await mainFrameOf(this.#tab);
  }

  /** The number of requests that have not ended. */
  get inFlight(): number {
    return this.#open.size;
  }

  /** When a request last began or ended, in milliseconds of `performance.now()`. */
  get lastActivity(): number {
    return this.#lastActivity;
  }

  get recorded(): readonly RecordedRequest[] {
    return this.#requests;
  }

  /** Bytes of the cookies that went with a request. */
  cookieBytesOf({ id }: RecordedRequest): number {
    return this.#cookies.get(id) ?? 0;
  }

  /** The request of the document itself, after its redirects. */
  get document(): RecordedRequest | undefined {
    const [first] = this.#requests;
    return first && this.#requests.findLast(({ id }) => id === first.id);
  }

  async #listen(channel: Channel, bodies: boolean): Promise<void> {
    channel.on('Network.requestWillBeSent', (event) => {
      if (
        event.type === 'Document' &&
        event.frameId === this.#mainFrame &&
        !event.redirectResponse
      ) {
        if (this.#begun) for (const listener of this.#leaving) listener();
        this.#begun = true;
      }
      if (!this.#begun || this.#requests.length >= maxRequests) return;
      this.#noteTime(event.timestamp);
      const before = this.#open.get(event.requestId)?.request;
      if (before) {
        // The page and the process of a frame may both tell of the frame's document.
        if (!event.redirectResponse) return;
        respond(before, event.redirectResponse);
        before.redirectsTo = keptAddress(event.request.url);
        before.transferBytes = event.redirectResponse.encodedDataLength;
        before.end = event.timestamp;
      }
      const request: RecordedRequest = {
        id: event.requestId,
        url: keptAddress(event.request.url),
        method: event.request.method,
        resourceType: event.type ?? 'Other',
        start: event.timestamp,
        wallTime: event.wallTime,
        ...(before
          ? { initiator: 'redirect', initiatedBy: { url: before.url, line: null } }
          : this.#initiatorOf(event)),
        firstPriority: event.request.initialPriority,
        ofPage: event.frameId === this.#mainFrame,
        renderBlocking: isBlocking(event),
        requestHeaders: headersOf(event.request.headers),
        priority: event.request.initialPriority,
        end: null,
        status: 0,
        statusText: '',
        mediaType: '',
        protocol: '',
        timing: undefined,
        transferBytes: 0,
        bodyBytes: 0,
        fromCache: false,
        revalidated: false,
        headerBytes: 0,
        responseHeaders: [],
        serverAddress: '',
        redirectsTo: '',
        failure: null,
      };
      this.#open.set(event.requestId, { from: channel, request });
      this.#requests.push(request);
    });
    channel.on('Network.requestWillBeSentExtraInfo', ({ requestId, headers }) => {
      const cookies = headers.Cookie ?? headers.cookie;
      if (cookies !== undefined && this.#begun) this.#cookies.set(requestId, cookies.length);
    });
    channel.on('Network.responseReceivedExtraInfo', ({ requestId, statusCode }) => {
      if (this.#begun) this.#statuses.set(requestId, statusCode);
    });
    channel.on('Network.requestServedFromCache', ({ requestId }) => {
      const request = this.#open.get(requestId)?.request;
      if (request) request.fromCache = true;
    });
    channel.on('Network.resourceChangedPriority', ({ requestId, newPriority }) => {
      const request = this.#open.get(requestId)?.request;
      if (request) request.priority = newPriority;
    });
    channel.on('Network.responseReceived', ({ requestId, response }) => {
      const request = this.#open.get(requestId)?.request;
      if (request) respond(request, response);
    });
    channel.on('Network.dataReceived', ({ requestId, dataLength, encodedDataLength }) => {
      const request = this.#open.get(requestId)?.request;
      if (!request) return;
      request.bodyBytes += dataLength;
      request.transferBytes += encodedDataLength;
    });
    channel.on('Network.loadingFinished', ({ requestId, timestamp, encodedDataLength }) => {
      const known = this.#open.has(requestId) ? requestId : this.#scriptOf(channel);
      const request = this.#close(known, timestamp);
      if (!request) return;
      if (!request.fromCache) request.transferBytes = encodedDataLength;
      // A 304 is told as what the cache makes of it: a body, of which no byte came over the network. Where the status on
      // the wire is not told: over HTTP/2 the headers are counted with what of the body came in the same packet.
      const status = this.#statuses.get(requestId);
      const hasNone = request.bodyBytes > 0 && encodedDataLength <= request.headerBytes;
      request.revalidated = status === undefined ? hasNone : status === 304;
      for (const listener of this.#listeners) listener(request, channel);
    });
    channel.on('Network.loadingFailed', ({ requestId, timestamp, errorText, canceled }) => {
      const request = this.#close(requestId, timestamp);
      if (request) request.failure = canceled ? 'canceled' : errorText;
    });
    await channel.send('Network.enable', {
      maxTotalBufferSize: bodies ? 256 * 1024 * 1024 : 0,
      maxResourceBufferSize: bodies ? 64 * 1024 * 1024 : 0,
    });
  }

  /** What caused a request, and where. */
  #initiatorOf({ initiator, request }: Asking): Pick<RecordedRequest, 'initiator' | 'initiatedBy'> {
    const { type, stack } = initiator;
    const frame = stack?.callFrames.find(({ url }) => url !== '');
    const [url = '', line] = frame
      ? [frame.url, frame.lineNumber]
      : [initiator.url, initiator.lineNumber];
    const initiatedBy =
      url === '' ? null : { url: keptAddress(url), line: line === undefined ? null : line + 1 };
    if (request.isLinkPreload) return { initiator: 'preload', initiatedBy };
    const isStyle = (one: RecordedRequest) =>
      one.resourceType === 'Stylesheet' && one.url === initiatedBy?.url;
    // The browser says of what a style sheet asks for that the parser did.
    const named = type === 'parser' && this.#requests.some(isStyle) ? 'style' : type;
    return { initiator: named, initiatedBy };
  }

  /** The request for a worker's script: the worker reports its end, under a number of its own. */
  #scriptOf(worker: Channel): string {
    const script = this.#scripts.get(worker);
    this.#scripts.delete(worker);
    const found = [...this.#open].find(([, { request }]) => request.url === script);
    return found?.[0] ?? '';
  }

  #noteTime(timestamp: number): void {
    this.#lastActivity = performance.now();
    this.#now = Math.max(this.#now, timestamp);
  }

  #close(requestId: string, timestamp: number): RecordedRequest | undefined {
    const request = this.#open.get(requestId)?.request;
    if (!request) return undefined;
    this.#open.delete(requestId);
    this.#noteTime(timestamp);
    request.end = timestamp;
    return request;
  }
}

async function mainFrameOf(tab: Channel): Promise<string> {
  const { frameTree } = await tab.send('Page.getFrameTree');
  return frameTree.frame.id;
}

/** The part of a request's announcement that says what caused it. */
interface Asking {
  readonly initiator: {
    readonly type: string;
    readonly url?: string;
    readonly lineNumber?: number;
    readonly stack?: {
      readonly callFrames: readonly { readonly url: string; readonly lineNumber: number }[];
    };
  };
  readonly request: { readonly isLinkPreload?: boolean };
}
