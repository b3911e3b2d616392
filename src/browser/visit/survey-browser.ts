import { setTimeout as after } from 'node:timers/promises';
import type { LimitFunction } from 'p-limit';
import type { Browser, BrowserContextOptions } from 'playwright-core';
import type { View } from '../../core/visitors/view.js';
import { BodyCollector } from '../network/bodies.js';
import type { KeepBody } from '../network/bodies.js';
import { TextCollector } from '../network/texts.js';
import type { KeepText, RulesOf } from '../network/texts.js';
import { addCookies, readBrowserState } from '../chromium/access.js';
import type { VisitorSettings } from '../chromium/access.js';
import { contextFor, launchBrowser } from '../chromium/launch.js';
import type { Notice } from '../chromium/launch.js';
import { Reach } from '../../reach/reach.js';
import { WireBytes } from '../network/wire-bytes.js';
import { userAgentOf } from '../chromium/user-agent.js';
import { Visitor, defaultVisitLimits } from './visitor.js';
import type { VisitLimits } from './page-visit.js';
import type { VisitManner } from './visitor.js';
import type { Visit } from './visit-result.js';

/** Loads a page in one view. */
export type ViewVisitor = Pick<Visitor, 'visit'> & Partial<Pick<Visitor, 'prepare'>>;

/** Loads a page in every view. */
export interface PageVisitor {
  /** One for each view, in their order. */
  readonly views: readonly ViewVisitor[];
  /** The place of the view to begin with: the one that takes longest, because pages are swept in it. */
  readonly first: number;
  /** Bounds how many pages are loaded at the same time, views counted one by one; absent where the crawl does. */
  readonly limit?: LimitFunction;
  /** Whether it takes a page now; absent where it always does. */
  readonly hasRoom?: () => boolean;
  /** Told of each page that is begun (1) and done (−1). */
  readonly onPage?: (change: 1 | -1) => void;
}

/** Without a user agent, it is the browser's own with the tool's name appended. */
export interface SurveyBrowserOptions extends VisitorSettings {
  readonly views: readonly View[];
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  readonly keepBody: KeepBody;
  readonly keepText: KeepText;
  readonly rulesOf: RulesOf;
  /** Which machines pages may have the browser connect to. */
  readonly reach?: Reach | undefined;
  readonly onNotice?: Notice | undefined;
  /** Bytes that the browser may have. */
  readonly memory?: number | undefined;
  readonly limits?: VisitLimits | undefined;
  /** Whether a picture of each page's first screen is taken. */
  readonly pictures?: boolean | undefined;
  /** Called with each problem of the browser that was dealt with. */
  readonly onTrace?: (message: string, details: Readonly<Record<string, unknown>>) => void;
}

/** The most attempts at a page that crashes the browser. */
const maxAttempts = 3;

/** A browser that runs, with a visitor for each view and tab. */
interface Running {
  readonly browser: Browser;
  /** Settles when the browser has exited. */
  readonly gone: Promise<undefined>;
  /** By view, then by tab. */
  readonly visitors: readonly (readonly Visitor[])[];
}

/**
 * A browser set up to survey: one context a view, whose cache stays warm from page to page, and in
 * each of them as many tabs as pages are visited at the same time. One that goes down is started anew.
 */
export class SurveyBrowser {
  readonly #options: SurveyBrowserOptions;
  #running: Promise<Running>;
  #closed = false;
  readonly visitors: readonly PageVisitor[];

  private constructor(options: SurveyBrowserOptions, running: Running) {
    this.#options = options;
    this.#running = Promise.resolve(running);
    this.visitors = Array.from({ length: options.tabs }, (_, tab) => ({
      first: sweptOf(options.views),
      views: options.views.map((_view, view) => ({
        visit: (url, manner) => this.#visit(view, tab, url, manner),
        prepare: () => this.#prepare(view, tab),
      })),
    }));
  }

  /** @throws BrowserError when no browser can be started; UsageError for a wrong browser state. */
  static async open(options: SurveyBrowserOptions): Promise<SurveyBrowser> {
    return new SurveyBrowser(options, await start(options));
  }

  async close(): Promise<void> {
    this.#closed = true;
    const running = await this.#running.catch(() => undefined);
    await running?.browser.close().catch(() => {});
  }

  #prepare(view: number, tab: number): void {
    const ready = this.#running.then(({ visitors }) => visitors[view]![tab]!.prepare());
    // A browser that cannot be started is told by the visit.
    ready.catch(() => {});
  }

  async #visit(view: number, tab: number, url: string, manner?: VisitManner): Promise<Visit> {
    for (let attempt = 1; ; attempt++) {
      const { gone, visitors } = await this.#alive();
      const visitor = visitors[view]![tab]!;
      // What is told of a page whose browser goes down under it may come too late, or never.
      const visit = await Promise.race([visitor.visit(url, manner), gone]);
      const down = visit === undefined || (await isDown(visit, gone));
      if (down) this.#options.onTrace?.('the browser went down during a visit', { url, attempt });
      if (!down || this.#closed) return visit ?? visitor.failed(url, 'the browser was closed');
      if (attempt === maxAttempts) return visitor.failed(url, 'the browser crashed with it');
    }
  }

  async #alive(): Promise<Running> {
    const before = this.#running;
    const running = await before;
    if (running.browser.isConnected() || this.#closed) return running;
    // Whoever sees it first starts another; the rest wait for that one.
    if (this.#running === before) {
      this.#options.onTrace?.('the browser is gone: another one is started', {});
      this.#running = start(this.#options);
    }
    return this.#running;
  }
}

/** Milliseconds by which the news of a browser's exit may lag behind the errors of its pages. */
const newsTime = 300;

/** Whether a visit failed because its browser crashed. */
async function isDown({ error }: Visit, gone: Promise<undefined>): Promise<boolean> {
  if (error === null || !/closed/.test(error)) return false;
  return Promise.race([gone.then(() => true), after(newsTime, false)]);
}

/** The view in which pages are swept, by its place: the first with a mouse, whose viewport really changes its width. */
export function sweptOf(views: readonly View[]): number {
  return Math.max(
    0,
    views.findIndex(({ touch }) => !touch),
  );
}

async function start(options: SurveyBrowserOptions): Promise<Running> {
  const {
    views,
    tabs,
    keepBody,
    keepText,
    rulesOf,
    limits = defaultVisitLimits,
    onNotice,
  } = options;
  const { reach = Reach.open() } = options;
  const { accesses = [], browserState } = options;
  const storageState = browserState === undefined ? undefined : readBrowserState(browserState);
  const browser = await launchBrowser(reach, {
    oneProcess: true,
    onNotice,
    memory: options.memory,
  });
  try {
    const common: BrowserContextOptions = {
      ignoreHTTPSErrors: options.anyCertificate ?? false,
      ...(storageState && { storageState }),
    };
    const swept = sweptOf(views);
    const setUp = async (view: View) => {
      const userAgent = options.userAgent ?? `${await userAgentOf(browser, view)} ZealousLynx`;
      const context = await browser.newContext({ ...contextFor(view), ...common, userAgent });
      // A page that prints itself would wait for an answer to the dialog.
      await context.addInitScript({ content: 'window.print = () => {};' });
      await addCookies(context, accesses);
      const shared = {
        context,
        view,
        bodies: new BodyCollector(keepBody),
        texts: new TextCollector(keepText, rulesOf),
        wireBytes: new WireBytes(),
        sweeps: view === views[swept],
        accesses,
        limits,
        reach,
        pictures: options.pictures ?? false,
      };
      return Array.from({ length: tabs }, () => new Visitor(shared));
    };
    // In this view the first page is loaded first: its tab opens while all else is made ready.
    const first = setUp(views[swept]!).then((ofView) => {
      ofView[0]?.prepare();
      return ofView;
    });
    const visitors = await Promise.all(
      views.map((view, at) => (at === swept ? first : setUp(view))),
    );
    const gone = new Promise<undefined>((resolve) => {
      browser.once('disconnected', () => resolve(undefined));
    });
    return { browser, gone, visitors };
  } catch (error) {
    await browser.close().catch(() => {});
    throw error;
  }
}
