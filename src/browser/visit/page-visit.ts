import { messageOf } from '../../core/base/errors.js';
import { noBytes } from '../../core/load/request.js';
import type { BytesByType } from '../../core/load/request.js';
import type { Placement } from '../../core/slots/placement.js';
import type { View } from '../../core/visitors/view.js';
import { IsolatedWorld } from '../chromium/isolated-world.js';
import { lostWords, navigate } from '../chromium/navigate.js';
import type { Trouble } from '../chromium/navigate.js';
import { whileItStays } from '../chromium/while-it-stays.js';
import { LateError } from '../chromium/within.js';
import type { DocumentFacts } from '../in-page/document-facts.js';
import { maxLinks, maxPlacements } from '../in-page/limits.js';
import type { FoundLoad } from '../in-page/load-facts.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import { canonicalInHeaders } from '../network/canonical-header.js';
import { forbidsScripts } from '../network/forbids-scripts.js';
import { hashesByAddress, imageAnswers } from '../network/image-responses.js';
import { typeOf } from '../network/recorded-request.js';
import type { RecordedRequest } from '../network/recorded-request.js';
import { resourcesOf } from '../network/resources.js';
import type { Reach } from '../../reach/reach.js';
import { allBreakpoints } from './all-breakpoints.js';
import { curvesOf } from './curves.js';
import { firstScreenPicture } from './first-screen.js';
import { measureFrames } from './frames.js';
import type { MeasuredDocument } from './frames.js';
import { layoutsKnown, withLayoutKnown } from './known-layouts.js';
import { loadFactsOf } from './load-facts.js';
import { scrollPage } from './scroll-page.js';
import type { Tab, TabOptions } from './tab.js';
import { failedVisit, warningOf } from './visit-result.js';
import type { FailedVisitOptions, Visit } from './visit-result.js';

export interface VisitLimits {
  /** Milliseconds that a page may take to load. */
  readonly load: number;
  /** Milliseconds that its images may take after the scroll. */
  readonly images: number;
}

export interface PageVisitOptions extends TabOptions {
  readonly limits: VisitLimits;
  /** Whether this is the view in which pages are swept. */
  readonly sweeps?: boolean;
  /** Which machines pages may have the browser connect to. */
  readonly reach?: Pick<Reach, 'refusalOf'>;
  /** Whether a picture of the first screen is taken. */
  readonly pictures?: boolean;
}

/** Milliseconds that a page's scripts may leave it without a document. */
const awayLimit = 2_000;

/** One visit of a page in a tab: it is loaded, scrolled, measured and swept. */
export class PageVisit {
  readonly #tab: Tab;
  readonly #url: string;
  readonly #options: PageVisitOptions;
  readonly #view: View;
  /** The step under way, named if the page does not respond. */
  #stage = 'loaded';
  #hasLoaded = false;
  /** What is known of the page before it is swept. */
  #measured: Visit | undefined;

  constructor(tab: Tab, url: string, options: PageVisitOptions) {
    this.#tab = tab;
    this.#url = url;
    this.#options = options;
    this.#view = options.view;
  }

  /** In words what the page is being when it does not respond: loaded, scrolled, measured, swept. */
  get stage(): string {
    return this.#stage;
  }

  /**
   * @param onAnswered called when the server has answered with a page, while the browser still loads it
   * @throws whatever happens to the page or its tab on the way
   */
  async make(onAnswered?: () => void): Promise<Visit> {
    const { page, cdp, recorder } = this.#tab;
    const onDocument = () => {
      if (recorder.document && isPage(recorder.document)) onAnswered?.();
    };
    page.once('framenavigated', onDocument);
    const trouble = await navigate(page, this.#url, this.#options.limits.load);
    page.off('framenavigated', onDocument);
    this.#hasLoaded = !trouble;
    const answer = recorder.document;
    if (answer && answer.status >= 400)
      return this.#failed(`returned ${answer.status}`, {
        passing: passingStatuses.has(answer.status),
      });
    if (trouble?.fatal || !answer) {
      const stopped = answer && this.#refusalOf(answer.url);
      if (stopped) return this.#failed(`leads to ${answer.url}: ${stopped}`);
      return this.#failed(trouble?.words ?? 'no response', { passing: trouble?.passing ?? true });
    }
    if (!isPage(answer))
      return this.#failed(`is ${answer.mediaType || 'of unknown type'}, not a page`);
    this.#stage = 'scrolled';
    const world = await IsolatedWorld.open(cdp, undefined, forbidsScripts(answer));
    await world.untilThere(awayLimit);
    if (page.url().startsWith('chrome-error:'))
      return this.#failed(this.#deadEnd(recorder.recorded));
    return whileItStays(cdp, () => this.#probe(world, answer, trouble));
  }

  /** What there is to tell of the visit when the page or its tab is lost. */
  cutShort(error: unknown): Visit {
    const words = lostWords(messageOf(error));
    const measured = this.#measured;
    if (measured) {
      const warning = warningOf([measured.warning, `${words}: its slots have no curves`]);
      return { ...measured, warning };
    }
    // A page that was there and fell silent may be a victim of what else the machine was doing; one that left may stay.
    const hasLeft = words !== messageOf(error);
    const passing = hasLeft || (error instanceof LateError && this.#hasLoaded);
    return this.#failed(words, { passing, isOnce: true });
  }

  #failed(error: string, more: FailedVisitOptions = {}): Visit {
    const { recorder } = this.#tab;
    return failedVisit(this.#view.name, this.#url, error, { recorder, ...more });
  }

  /** Scrolls and measures the page that is loaded. */
  async #probe(
    world: IsolatedWorld,
    answer: RecordedRequest,
    trouble: Trouble | undefined,
  ): Promise<Visit> {
    const { page, cdp, recorder } = this.#tab;
    const { limits } = this.#options;
    const atOnce = new Set(recorder.recorded.map((request) => request.url));
    await scrollPage(world, cdp, recorder);
    const settled = await world.settleImages(limits.images);
    this.#stage = 'measured';
    // Orders that change nothing are given at once: the browser carries them out in turn, and need not wait for the next.
    const [picture, largest, own, frames, facts, found] = await Promise.all([
      this.#options.pictures ? firstScreenPicture(cdp, this.#view) : null,
      world.call<string | null>('largestContent'),
      world.call<ProbedPlacement[]>('placementsOf'),
      measureFrames(cdp, world, this.#view),
      world.call<DocumentFacts>('documentFacts'),
      world.call<FoundLoad>('loadFacts'),
    ]);
    const placements = [...own, ...frames.flatMap((frame) => frame.placements)];
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
    if (this.#options.sweeps) this.#stage = 'swept';
    const curves = this.#options.sweeps ? await this.#sweep(documents, placements) : [];
    // Scripts are called, and elements get other names, when the page is swept.
    const worlds = documents.map((one) => one.world);
    const load = await loadFactsOf(found, this.#tab, this.#options.texts, worlds, placements);
    return { ...visit, load, curves };
  }

  async #sweep(
    documents: readonly [MeasuredDocument, ...MeasuredDocument[]],
    placements: readonly ProbedPlacement[],
  ): Promise<Visit['curves']> {
    const { cdp, recorder } = this.#tab;
    const breakpoints = await allBreakpoints(documents, recorder, this.#options.texts);
    return curvesOf(cdp, documents, placements, this.#view, breakpoints);
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
}

function isPage({ status, mediaType }: RecordedRequest): boolean {
  return status < 400 && /html|xml/.test(mediaType);
}

/** The box of a placement as four numbers; of no size for what is not shown. */
function numbersOf({ shown, box: { left, top, width, height } }: ProbedPlacement): number[] {
  return shown ? [left, top, width, height] : [0, 0, 0, 0];
}

/** Statuses that mean "not now": too many requests, and gateways whose servers are unavailable. */
const passingStatuses: ReadonlySet<number> = new Set([408, 425, 429, 502, 503, 504]);
