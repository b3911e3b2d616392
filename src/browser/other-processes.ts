import type { Page, Request } from 'playwright-core';
import { keptAddress } from '../core/address.js';
import { redacted } from '../core/headers.js';
import { noPhases } from '../core/request.js';
import type { PageRequest } from '../core/request.js';
import { typeNamed } from './request-type.js';
import type { RecordedRequest } from './network-recorder.js';

/** The most requests that are kept of other processes. */
const maxRequests = 5_000;

/**
 * Keeps what frames of other sites and workers ask for: they have processes of their own, of which the network of
 * the tab tells nothing. The driver listens to all of them, and knows less of each request.
 */
export class OtherProcesses {
  readonly #requests: Request[] = [];
  readonly #ended = new Set<Request>();
  #lastActivity = 0;

  private constructor() {}

  /** It must watch before the page is navigated. */
  static watch(page: Page): OtherProcesses {
    const others = new OtherProcesses();
    page.on('request', (request) => {
      others.#lastActivity = performance.now();
      if (others.#requests.length < maxRequests) others.#requests.push(request);
    });
    const end = (request: Request) => {
      others.#lastActivity = performance.now();
      others.#ended.add(request);
    };
    page.on('requestfinished', end);
    page.on('requestfailed', end);
    return others;
  }

  /** How many requests have not ended, those of the page among them. */
  get inFlight(): number {
    return this.#requests.filter((request) => !this.#ended.has(request)).length;
  }

  /** When a request last began or ended, in milliseconds of `performance.now()`. */
  get lastActivity(): number {
    return this.#lastActivity;
  }

  /** Ends what the tab saw begin and went on elsewhere: the documents of frames, the scripts of workers. */
  async endElsewhere(known: readonly RecordedRequest[]): Promise<void> {
    for (const begun of known.filter(({ end }) => end === null)) {
      const request = this.#requests.find(
        (one) => this.#ended.has(one) && keptAddress(one.url()) === begun.url,
      );
      if (!request) continue;
      const { startTime, responseEnd } = request.timing();
      const late = startTime / 1000 - begun.wallTime;
      begun.end = begun.start + Math.max(0, late) + Math.max(0, responseEnd) / 1000;
      const sizes = await request.sizes().catch(() => undefined);
      if (!sizes) continue;
      begun.bodyBytes = sizes.responseBodySize;
      begun.transferBytes = sizes.responseHeadersSize + sizes.responseBodySize;
    }
  }

  /**
   * What the tab's own network did not tell.
   *
   * @param known what it did tell
   * @param began when the navigation began, in seconds since 1970
   */
  async requests(
    known: readonly RecordedRequest[],
    began: number,
    isThirdParty: (address: string) => boolean,
  ): Promise<PageRequest[]> {
    const counts = new Map<string, number>();
    for (const { url } of known) counts.set(url, (counts.get(url) ?? 0) + 1);
    const isKnown = (request: Request) => {
      const url = keptAddress(request.url());
      const left = counts.get(url) ?? 0;
      counts.set(url, left - 1);
      return left > 0;
    };
    // An address that the page and a frame have both asked for is told once by the tab: the page's own.
    const own = this.#requests.filter((request) => isOfPage(request));
    const rest = this.#requests.filter((request) => !isOfPage(request));
    const missing = [...own, ...rest].filter((request) => !isKnown(request));
    return Promise.all(
      missing.map((request) => this.#told(request, began, isThirdParty(request.url()))),
    );
  }

  async #told(request: Request, began: number, thirdParty: boolean): Promise<PageRequest> {
    const ended = this.#ended.has(request);
    const answer = ended ? await request.response().catch(() => null) : null;
    const sizes = answer ? await request.sizes().catch(() => undefined) : undefined;
    const headers = answer ? await answer.headersArray().catch(() => []) : [];
    const address = answer ? await answer.serverAddr().catch(() => null) : null;
    const mediaType = (answer?.headers()['content-type'] ?? '').split(';')[0]!.trim().toLowerCase();
    const before = request.redirectedFrom();
    const times = timesOf(request, began);
    return {
      url: keptAddress(request.url()),
      method: request.method(),
      type: typeNamed(request.resourceType(), mediaType),
      status: answer?.status() ?? 0,
      statusText: answer?.statusText() ?? '',
      mediaType,
      protocol: '',
      ...times,
      end: ended ? times.end : null,
      transferBytes: (sizes?.responseHeadersSize ?? 0) + (sizes?.responseBodySize ?? 0),
      bodyBytes: sizes?.responseBodySize ?? 0,
      fromCache: false,
      priority: '',
      firstPriority: '',
      initiator: before ? 'redirect' : 'other',
      initiatedBy: { url: frameAddress(request), line: null },
      used: null,
      thirdParty,
      renderBlocking: false,
      requestHeaders: Object.entries(request.headers()).map(([name, value]) =>
        redacted({ name, value }),
      ),
      responseHeaders: headers.map(redacted),
      serverAddress: address?.ipAddress ?? '',
      redirectsTo: request.redirectedTo() ? keptAddress(request.redirectedTo()!.url()) : '',
      failure: request.failure()?.errorText ?? null,
    };
  }
}

/** Start, end and phases; the driver counts milliseconds from the request's start, −1 for none. */
function timesOf(
  request: Request,
  began: number,
): Pick<PageRequest, 'start' | 'phases'> & { end: number } {
  const timing = request.timing();
  const start = Math.max(0, timing.startTime - began * 1000);
  const span = (from: number, to: number) => (from < 0 || to < from ? 0 : to - from);
  const tls = span(timing.secureConnectionStart, timing.connectEnd);
  const phases = {
    ...noPhases,
    dns: span(timing.domainLookupStart, timing.domainLookupEnd),
    connect: Math.max(0, span(timing.connectStart, timing.connectEnd) - tls),
    tls,
    wait: span(timing.requestStart, timing.responseStart),
    receive: span(timing.responseStart, timing.responseEnd),
  };
  const whole = Math.max(0, timing.responseEnd);
  const known = phases.dns + phases.connect + phases.tls + phases.wait + phases.receive;
  return {
    start,
    end: start + Math.max(whole, known),
    phases: { ...phases, blocked: Math.max(0, whole - known) },
  };
}

function isOfPage(request: Request): boolean {
  try {
    return request.frame().parentFrame() === null;
  } catch {
    // A service worker has no frame, and a frame that is gone tells nothing.
    return false;
  }
}

function frameAddress(request: Request): string {
  try {
    return keptAddress(request.frame().url());
  } catch {
    return '';
  }
}
