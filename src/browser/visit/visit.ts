import { messageOf } from '../../core/base/errors.js';
import { noBytes } from '../../core/load/request.js';
import type { BytesByType } from '../../core/load/request.js';
import type { Placement } from '../../core/slots/placement.js';
import { resourcesOf } from '../network/resources.js';
import type { View } from '../../core/visitors/view.js';
import { canonicalInHeaders } from '../network/canonical-header.js';
import { forbidsScripts } from '../network/forbids-scripts.js';
import { firstScreenPicture } from './first-screen.js';
import { measureFrames } from './frames.js';
import { hashesByAddress, imageAnswers } from '../network/image-responses.js';
import type { DocumentFacts } from '../in-page/document-facts.js';
import type { FoundLoad } from '../in-page/load-facts.js';
import { maxLinks, maxPlacements } from '../in-page/limits.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import { IsolatedWorld } from '../chromium/isolated-world.js';
import { lostWords, navigate } from '../chromium/navigate.js';
import type { Trouble } from '../chromium/navigate.js';
import { typeOf } from '../network/recorded-request.js';
import type { RecordedRequest } from '../network/recorded-request.js';
import { scrollPage } from './scroll-page.js';
import { curvesOf } from './curves.js';
import { loadFactsOf } from './load-facts.js';
import { layoutsKnown, withLayoutKnown } from './known-layouts.js';
import type { Reach } from '../../reach/reach.js';
import { failedVisit, warningOf } from './visit-result.js';
import type { FailedVisitOptions, Visit } from './visit-result.js';
import { Tab } from './tab.js';
import type { TabOptions } from './tab.js';
import { LateError, within } from '../chromium/within.js';
import { whileItStays } from '../chromium/while-it-stays.js';

export interface VisitLimits {
  /** Milliseconds that a page may take to load. */
  readonly load: number;
  /** Milliseconds that its images may take after the scroll. */
  readonly images: number;
}

export const defaultVisitLimits: VisitLimits = { load: 30_000, images: 8_000 };

/** Milliseconds that a visit may take besides loading: measuring, scrolling, reading bodies. */
const patience = 20_000;

/** Milliseconds that a page's scripts may leave it without a document. */
const awayLimit = 2_000;

/** Milliseconds that a tab may take to open, beside others that keep the machine busy. */
const openingPatience = 60_000;

export interface VisitorOptions extends TabOptions {
  /** Whether this is the view in which pages are swept. */
  readonly sweeps?: boolean;
  readonly limits?: VisitLimits;
  /** Which machines pages may have the browser connect to. */
  readonly reach?: Pick<Reach, 'refusalOf'>;
  /** Whether a picture of the first screen is taken. */
  readonly pictures?: boolean;
}

/** The number of pages after which a tab is replaced: renderers grow with every page. */
const visitsPerTab = 25;

/** Visits pages in one view, one after another. All visitors of a context share its network cache. */
export class Visitor {
  readonly #options: VisitorOptions;
  readonly #view: View;
  readonly #limits: VisitLimits;
  #tab: Tab | undefined;
  /** A tab that was asked for ahead of the page that it is for. */
  #ahead: Promise<Tab> | undefined;
  #leaving: Promise<void> = Promise.resolve();
  /** The step under way, named if the page does not respond. */
  #stage = '';
  /** Whether the page had finished loading. */
  #loaded = false;
  /** What is known of the page before it is swept. */
  #measured: Visit | undefined;

  constructor(options: VisitorOptions) {
    this.#options = options;
    this.#view = options.view;
    this.#limits = options.limits ?? defaultVisitLimits;
  }

  /** Begins to open a tab for the next page, while others are visited. */
  prepare(): void {
    if (this.#tab) return;
    this.#ahead ??= this.#open();
    // Whoever visits a page with it is told.
    this.#ahead.catch(() => {});
  }

  /**
   * Visits a page. Whatever goes wrong is in the result, never thrown.
   *
   * @param onLoaded called when the page has loaded, before it is scrolled and measured
   */
  async visit(url: string, onLoaded?: () => void): Promise<Visit> {
    await this.#leaving;
    try {
      this.#tab ??= await (this.#ahead ?? this.#open());
      this.#ahead = undefined;
    } catch (error) {
      this.#ahead = undefined;
      // That is none of the page's doing.
      return this.failed(url, messageOf(error), { passing: true });
    }
    const tab = this.#tab;
    try {
      const work = Promise.race([this.#measure(tab, url, onLoaded), tab.crashed]);
      const most = this.#limits.load + patience;
      const visit = await within(most, work, () => this.#silence(most));
      this.#leaving = this.#leave(tab);
      return visit;
    } catch (error) {
      // A page that was there and fell silent may be a victim of what else the machine was doing; one that left may stay.
      const words = lostWords(messageOf(error));
      const measured = this.#measured;
      if (measured) {
        await this.#drop();
        const warning = warningOf([measured.warning, `${words}: its slots have no curves`]);
        return { ...measured, warning };
      }
      const hasLeft = words !== messageOf(error);
      const passing = hasLeft || (error instanceof LateError && this.#loaded);
      const visit = this.failed(url, words, { recorder: tab.recorder, passing, isOnce: true });
      await this.#drop();
      return visit;
    }
  }

  async #open(): Promise<Tab> {
    const opening = Tab.open(this.#options);
    try {
      const words = () => `no tab opened within ${openingPatience / 1000} s`;
      return await within(openingPatience, opening, words);
    } catch (error) {
      opening.then(
        (tab) => tab.close(),
        () => {},
      );
      throw error;
    }
  }

  #silence(most: number): string {
    return `the page did not respond for ${most / 1000} s while it was ${this.#stage}`;
  }

  /** Leaves the page while others are visited in other tabs. */
  async #leave(tab: Tab): Promise<void> {
    // A page that does not let itself be left costs its tab, and not its visit.
    const leaving = Promise.race([tab.leave(), tab.crashed]);
    const left = await within(patience, leaving, () => 'late').then(
      () => true,
      () => false,
    );
    if (!left || tab.visits >= visitsPerTab) await this.#drop();
  }

  async #drop(): Promise<void> {
    const tab = this.#tab;
    this.#tab = undefined;
    await tab?.close();
  }

  async #measure(tab: Tab, url: string, onLoaded?: () => void): Promise<Visit> {
    const { page, cdp, recorder } = tab;
    const limits = this.#limits;
    this.#stage = 'loaded';
    this.#loaded = false;
    this.#measured = undefined;
    const trouble = await navigate(page, url, limits.load);
    this.#loaded = !trouble;
    const answer = recorder.document;
    const failed = (error: string, passing = false) =>
      this.failed(url, error, { recorder, passing });
    if (answer && answer.status >= 400)
      return failed(`returned ${answer.status}`, passingStatuses.has(answer.status));
    if (trouble?.fatal || !answer) {
      const stopped = answer && this.#refusalOf(answer.url);
      if (stopped) return failed(`leads to ${answer.url}: ${stopped}`);
      return failed(trouble?.words ?? 'no response', trouble?.passing ?? true);
    }
    if (!/html|xml/.test(answer.mediaType))
      return failed(`is ${answer.mediaType || 'of unknown type'}, not a page`);
    onLoaded?.();
    this.#stage = 'scrolled';
    const world = await IsolatedWorld.open(cdp, undefined, forbidsScripts(answer));
    await world.untilThere(awayLimit);
    if (page.url().startsWith('chrome-error:')) return failed(this.#deadEnd(recorder.recorded));
    return whileItStays(cdp, () => this.#probe(tab, world, answer, trouble));
  }

  /** Scrolls and measures the page that is loaded. */
  async #probe(
    tab: Tab,
    world: IsolatedWorld,
    answer: RecordedRequest,
    trouble: Trouble | undefined,
  ): Promise<Visit> {
    const { page, cdp, recorder } = tab;
    const limits = this.#limits;
    const atOnce = new Set(recorder.recorded.map((request) => request.url));
    await scrollPage(world, cdp, recorder);
    const settled = await world.settleImages(limits.images);
    this.#stage = 'measured';
    const picture = this.#options.pictures ? await firstScreenPicture(cdp, this.#view) : null;
    const largest = await world.call<string | null>('largestContent');
    const own = await world.call<ProbedPlacement[]>('placementsOf');
    const frames = await measureFrames(cdp, world, this.#view);
    const placements = [...own, ...frames.flatMap((frame) => frame.placements)];
    const facts = await world.call<DocumentFacts>('documentFacts');
    const icons = new Set(facts.icons);
    const requests = [...recorder.recorded];
    const cookieBytesOf = (request: RecordedRequest) => recorder.cookieBytesOf(request);
    const { bodies } = this.#options;
    const answers = await imageAnswers(requests, cookieBytesOf, bodies, settled && !trouble);
    const images = answers.filter(({ url }) => !icons.has(url));
    const hashes = hashesByAddress(images);
    const documents = [{ world, placements: own }, ...frames] as const;
    const known = await layoutsKnown(documents);
    const fetched = (url: string): Placement['fetched'] =>
      atOnce.has(url) ? 'at-once' : hashes.has(url) ? 'on-scroll' : null;
    const visit = {
      view: this.#view.name,
      finalUrl: page.url(),
      status: answer.status,
      mediaType: answer.mediaType,
      error: null,
      warning: warningOf([
        trouble?.words ?? (settled ? null : 'some images had not finished loading'),
        own.length >= maxPlacements
          ? `only ${maxPlacements.toLocaleString('en')} of its images were measured`
          : null,
        facts.links.length >= maxLinks
          ? `only ${maxLinks.toLocaleString('en')} of its links were read`
          : null,
      ]),
      passing: null,
      links: facts.links,
      ownLinks: facts.ownLinks,
      digest: facts.digest,
      canonical: facts.canonical ?? canonicalInHeaders(answer),
      shape: facts.shape,
      uses: facts.uses,
      namingFiles: facts.namingFiles,
      placements: placements.map((placement, index) => ({
        ...withLayoutKnown(placement, known[index]!),
        contentHash: hashes.get(placement.url) ?? null,
        fetched: fetched(placement.url),
        largest: placement.shown && placement.aboveFold && placement.url === largest,
      })),
      images,
      resources: await resourcesOf(recorder, this.#options.texts, this.#options.wireBytes),
      bytesByType: this.#weigh(requests),
      stopped: this.#stoppedOf(requests),
      screen: { ...facts.size, boxes: placements.flatMap(numbersOf), picture },
    } as const;
    this.#measured = { ...visit, load: null, curves: [] };
    const found = await world.call<FoundLoad>('loadFacts');
    if (this.#options.sweeps) this.#stage = 'swept';
    const curves = this.#options.sweeps
      ? await curvesOf(cdp, documents, placements, this.#view)
      : [];
    // Rules for other widths are used when the page is swept.
    const load = await loadFactsOf(found, tab, this.#options.texts, placements);
    return { ...visit, load, curves };
  }

  /** In words where a page went that led nowhere. */
  #deadEnd(requests: readonly RecordedRequest[]): string {
    const left = requests.findLast((one) => one.resourceType === 'Document' && one.ofPage);
    if (!left) return 'leads on to a page that cannot be loaded';
    const reason = this.#refusalOf(left.url) ?? 'it cannot be loaded';
    return `leads on to ${left.url}: ${reason}`;
  }

  #refusalOf(url: string): string | undefined {
    return this.#options.reach?.refusalOf(url);
  }

  #stoppedOf(requests: readonly RecordedRequest[]): Visit['stopped'] {
    const urls = new Set(requests.filter(({ failure }) => failure !== null).map(({ url }) => url));
    return [...urls].flatMap((url) => {
      const reason = this.#refusalOf(url);
      return reason === undefined ? [] : { url, reason };
    });
  }

  #weigh(requests: readonly RecordedRequest[]): BytesByType {
    const bytes = noBytes();
    for (const request of requests) bytes[typeOf(request)] += this.#options.wireBytes.of(request);
    return bytes;
  }

  /** The result of a visit that failed. */
  failed(url: string, error: string, more: FailedVisitOptions = {}): Visit {
    return failedVisit(this.#view.name, url, error, more);
  }
}

/** The box of a placement as four numbers; of no size for what is not shown. */
function numbersOf({ shown, box: { left, top, width, height } }: ProbedPlacement): number[] {
  return shown ? [left, top, width, height] : [0, 0, 0, 0];
}

/** Statuses that mean "not now": too many requests, and gateways whose servers are unavailable. */
const passingStatuses: ReadonlySet<number> = new Set([408, 425, 429, 502, 503, 504]);
