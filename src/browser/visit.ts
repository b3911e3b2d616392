import { setTimeout as after } from 'node:timers/promises';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';
import { messageOf } from '../core/errors.js';
import { noBytes } from '../core/request.js';
import type { BytesByType } from '../core/request.js';
import type { Placement, SlotCurve } from '../core/placement.js';
import type { View } from '../core/view.js';
import { isImage } from './bodies.js';
import type { BodyCollector } from './bodies.js';
import { placementsInFrames } from './frames.js';
import type { ProbedPlacement } from './in-page/probed.js';
import { IsolatedWorld } from './isolated-world.js';
import { NetworkRecorder, typeOf } from './network-recorder.js';
import type { RecordedRequest } from './network-recorder.js';
import { sweep } from './sweep.js';

/** An image that a visit received. */
export interface VisitedImage {
  readonly url: string;
  readonly contentHash: string;
  readonly declaredType: string;
  readonly transferBytes: number;
}

/** What one page in one view came to. */
export interface Visit {
  readonly view: string;
  readonly finalUrl: string;
  readonly status: number | null;
  readonly mediaType: string;
  /** Why there is nothing to measure, when there is not. */
  readonly error: string | null;
  /** What went wrong though the page was measured. */
  readonly warning: string | null;
  readonly links: readonly string[];
  readonly placements: readonly Omit<Placement, 'page' | 'view'>[];
  /** The slot curves, from the one visit of a page that is swept; elsewhere none. */
  readonly curves: readonly Omit<SlotCurve, 'page'>[];
  readonly images: readonly VisitedImage[];
  /** Bytes on the wire; of the first fetch where the cache answered. */
  readonly bytesByType: BytesByType;
}

export interface VisitLimits {
  /** Milliseconds that a page may take to load. */
  readonly load: number;
  /** Milliseconds that its images may take after the scroll. */
  readonly images: number;
}

export const defaultVisitLimits: VisitLimits = { load: 30_000, images: 8_000 };

/** What a visit may take besides loading: measuring, scrolling, reading bodies. */
const patience = 20_000;

/**
 * Visits pages in one view, one after the other, each in a tab of its own: a tab that is used again
 * remembers decoded images, and then picks another candidate of a `srcset` than a visitor would get.
 * What the network's cache holds is shared by all.
 */
export class Visitor {
  readonly #context: BrowserContext;
  readonly #view: View;
  readonly #bodies: BodyCollector;
  readonly #wireBytes: Map<string, number>;
  readonly #sweeps: boolean;

  /**
   * @param wireBytes what each address cost when it was first fetched; shared by the tabs of a context
   * @param sweeps whether this is the view in which pages are swept
   */
  constructor(
    context: BrowserContext,
    view: View,
    bodies: BodyCollector,
    wireBytes: Map<string, number>,
    sweeps = false,
  ) {
    this.#context = context;
    this.#view = view;
    this.#bodies = bodies;
    this.#wireBytes = wireBytes;
    this.#sweeps = sweeps;
  }

  /** Visits a page. What goes wrong with it is told in the result, never thrown. */
  async visit(url: string, limits: VisitLimits = defaultVisitLimits): Promise<Visit> {
    const giveUp = new AbortController();
    let page: Page | undefined;
    let recorder: NetworkRecorder | undefined;
    try {
      page = await this.#context.newPage();
      page.on('popup', (popup) => void popup.close().catch(() => {}));
      const crashed = crashOf(page);
      const late = after(limits.load + patience, undefined, { signal: giveUp.signal }).then(() => {
        throw new Error(`the page did not answer for ${(limits.load + patience) / 1000} s`);
      });
      late.catch(() => {});
      const cdp = await this.#context.newCDPSession(page);
      recorder = await NetworkRecorder.attach(cdp);
      this.#bodies.watch(cdp, recorder);
      return await Promise.race([this.#measure(page, cdp, recorder, url, limits), crashed, late]);
    } catch (error) {
      return this.#failed(url, messageOf(error), recorder);
    } finally {
      giveUp.abort();
      await page?.close().catch(() => {});
    }
  }

  async #measure(
    page: Page,
    cdp: CDPSession,
    recorder: NetworkRecorder,
    url: string,
    limits: VisitLimits,
  ): Promise<Visit> {
    const trouble = await navigate(page, url, limits.load);
    const answer = recorder.document;
    const failed = (error: string) => this.#failed(url, error, recorder);
    if (answer && answer.status >= 400) return failed(`answered ${answer.status}`);
    if (trouble?.fatal || !answer) return failed(trouble?.words ?? 'no answer came');
    if (!/html|xml/.test(answer.mediaType))
      return failed(`is ${answer.mediaType || 'of no known type'}, not a page`);
    const world = await IsolatedWorld.open(cdp);
    const atOnce = new Set(recorder.recorded.map((request) => request.url));
    await world.call('scrollThrough');
    const settled = await world.call<boolean>('settleImages', limits.images);
    const own = await world.call<ProbedPlacement[]>('placementsOf');
    const placements = [...own, ...(await placementsInFrames(cdp, world, this.#view))];
    const links = await world.call<string[]>('linksOf');
    const icons = new Set(await world.call<string[]>('iconsOf'));
    const requests = [...recorder.recorded];
    const images = (await this.#images(requests)).filter(({ url }) => !icons.has(url));
    const hashes = hashesByAddress(images, requests);
    const fetched = (url: string): Placement['fetched'] =>
      atOnce.has(url) ? 'at-once' : hashes.has(url) ? 'on-scroll' : null;
    const visit = {
      view: this.#view.name,
      finalUrl: page.url(),
      status: answer.status,
      mediaType: answer.mediaType,
      error: null,
      warning: trouble?.words ?? (settled ? null : 'some images were still loading'),
      links,
      placements: placements.map((placement) => ({
        ...placement,
        contentHash: hashes.get(placement.url) ?? null,
        fetched: fetched(placement.url),
      })),
      images,
      bytesByType: this.#weigh(requests),
    } as const;
    if (!this.#sweeps) return { ...visit, curves: [] };
    const curves = await curvesOf(cdp, world, own, this.#view);
    // What the sweep made the page fetch is none of its weight, but the cache has it now.
    this.#weigh(recorder.recorded);
    return { ...visit, curves };
  }

  async #images(requests: readonly RecordedRequest[]): Promise<VisitedImage[]> {
    const images = new Map<string, VisitedImage>();
    for (const request of requests) {
      if (!isImage(request) || images.has(request.url)) continue;
      const body = await this.#bodies.find(request.url);
      if (typeof body === 'string') continue;
      images.set(request.url, { url: request.url, declaredType: request.mediaType, ...body });
    }
    return [...images.values()];
  }

  #weigh(requests: readonly RecordedRequest[]): BytesByType {
    const bytes = noBytes();
    for (const request of requests) {
      if (!request.fromCache) this.#wireBytes.set(request.url, request.transferBytes);
      const cost = request.fromCache ? this.#wireBytes.get(request.url) : request.transferBytes;
      bytes[typeOf(request)] += Math.round(cost ?? 0);
    }
    return bytes;
  }

  #failed(url: string, error: string, recorder: NetworkRecorder | undefined): Visit {
    const answer = recorder?.document;
    return {
      view: this.#view.name,
      finalUrl: answer?.url ?? url,
      status: answer?.status || null,
      mediaType: answer?.mediaType ?? '',
      error,
      warning: null,
      links: [],
      placements: [],
      curves: [],
      images: [],
      bytesByType: noBytes(),
    };
  }
}

/** Rejects when the page's renderer goes down; pending for as long as it lives. */
function crashOf(page: Page): Promise<never> {
  const crashed = new Promise<never>((_, reject) => {
    page.once('crash', () => reject(new Error('the page crashed its renderer')));
  });
  crashed.catch(() => {});
  return crashed;
}

/** Loads a page; says what went wrong, and whether anything is there to be measured all the same. */
async function navigate(
  page: Page,
  url: string,
  limit: number,
): Promise<{ words: string; fatal: boolean } | undefined> {
  try {
    await page.goto(url, { waitUntil: 'load', timeout: limit });
    return undefined;
  } catch (error) {
    const message = messageOf(error);
    if (/Timeout/.test(message)) {
      const answered = page.url() !== 'about:blank';
      return { words: `had not finished loading after ${limit / 1000} s`, fatal: !answered };
    }
    if (/Download is starting/.test(message)) return { words: 'is a download', fatal: true };
    const reason = /net::(ERR_\w+)/.exec(message)?.[1];
    return { words: reason ? networkWords(reason) : message, fatal: true };
  }
}

const knownErrors: Readonly<Record<string, string>> = {
  ERR_CONNECTION_REFUSED: 'nothing answers there (connection refused)',
  ERR_NAME_NOT_RESOLVED: 'no such host',
  ERR_TOO_MANY_REDIRECTS: 'redirects in a circle',
  ERR_CONNECTION_TIMED_OUT: 'nothing answers there (timed out)',
  ERR_EMPTY_RESPONSE: 'the server closed the connection without an answer',
  ERR_CONNECTION_RESET: 'the server reset the connection',
  ERR_ABORTED: 'the load was aborted',
};

/** A network error of the browser in words, with its name kept for those who know it. */
export function networkWords(name: string): string {
  if (name.startsWith('ERR_CERT')) return `its certificate does not verify (${name})`;
  return knownErrors[name] ?? name;
}

/** The slot curve of every placement, each element and kind once. */
async function curvesOf(
  cdp: CDPSession,
  world: IsolatedWorld,
  placements: readonly ProbedPlacement[],
  view: View,
): Promise<Omit<SlotCurve, 'page'>[]> {
  if (placements.length === 0) return [];
  const pieces = await sweep(cdp, world, view);
  const curves = new Map<string, Omit<SlotCurve, 'page'>>();
  placements.forEach(({ kind, selector }, index) => {
    const key = `${kind} ${selector}`;
    const curve = pieces[index] ?? [];
    if (!curves.has(key) && curve.length > 0) curves.set(key, { kind, selector, pieces: curve });
  });
  return [...curves.values()];
}

/** Content hashes by the address a page asked for, redirects followed. */
function hashesByAddress(
  images: readonly VisitedImage[],
  requests: readonly RecordedRequest[],
): ReadonlyMap<string, string> {
  const hashes = new Map(images.map(({ url, contentHash }) => [url, contentHash]));
  for (const { url, redirectsTo } of [...requests].reverse()) {
    const hash = hashes.get(redirectsTo);
    if (hash && !hashes.has(url)) hashes.set(url, hash);
  }
  return hashes;
}
