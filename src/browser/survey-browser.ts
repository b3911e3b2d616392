import type { Browser, BrowserContextOptions } from 'playwright-core';
import type { Access } from '../core/access.js';
import type { View } from '../core/view.js';
import { BodyCollector } from './bodies.js';
import type { KeepBody } from './bodies.js';
import { addCookies, readBrowserState } from './entry.js';
import { contextFor, launchBrowser } from './launch.js';
import type { HostMap } from './launch.js';
import { Visitor, defaultVisitLimits } from './visit.js';
import type { Visit, VisitLimits } from './visit.js';

/** Loads a page in every view. */
export interface PageVisitor {
  /** One for each view, in their order. */
  readonly views: readonly { visit(url: string): Promise<Visit> }[];
}

export interface SurveyBrowserOptions {
  readonly views: readonly View[];
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  readonly keepBody: KeepBody;
  readonly hosts?: HostMap | undefined;
  readonly limits?: VisitLimits | undefined;
  /** How the browser names itself; left out, its own name with the tool's behind it. */
  readonly userAgent?: string | undefined;
  /** What is shown to hosts so that they let it in. */
  readonly accesses?: readonly Access[] | undefined;
  /** File with cookies and local storage that a browser saved. */
  readonly browserState?: string | undefined;
  /** Accepts certificates that do not verify. */
  readonly anyCertificate?: boolean | undefined;
}

/**
 * A browser set up to survey: one context a view, whose cache stays warm from page to page, and in
 * each of them as many tabs as pages are visited at the same time.
 */
export class SurveyBrowser {
  readonly #browser: Browser;
  readonly visitors: readonly PageVisitor[];

  private constructor(browser: Browser, visitors: readonly PageVisitor[]) {
    this.#browser = browser;
    this.visitors = visitors;
  }

  /** @throws BrowserError when no browser can be started. */
  static async open(options: SurveyBrowserOptions): Promise<SurveyBrowser> {
    const { views, tabs, keepBody, hosts = {}, limits = defaultVisitLimits } = options;
    const { accesses = [], browserState } = options;
    const storageState = browserState === undefined ? undefined : readBrowserState(browserState);
    const browser = await launchBrowser(hosts, { oneProcess: true });
    try {
      const common: BrowserContextOptions = {
        userAgent: options.userAgent ?? `${await ownNameOf(browser)} ZealousLynx`,
        ignoreHTTPSErrors: options.anyCertificate ?? false,
        ...(storageState && { storageState }),
      };
      const swept = views.find(({ touch }) => !touch) ?? views[0];
      const rows = await Promise.all(
        views.map(async (view) => {
          const context = await browser.newContext({ ...contextFor(view), ...common });
          await addCookies(context, accesses);
          const shared = {
            context,
            view,
            bodies: new BodyCollector(keepBody),
            wireBytes: new Map<string, number>(),
            sweeps: view === swept,
            accesses,
            limits,
          };
          return Array.from({ length: tabs }, () => new Visitor(shared));
        }),
      );
      const visitors = Array.from({ length: tabs }, (_, index) => ({
        views: rows.map((row) => row[index]!),
      }));
      return new SurveyBrowser(browser, visitors);
    } catch (error) {
      await browser.close().catch(() => {});
      throw error;
    }
  }

  get version(): string {
    return this.#browser.version();
  }

  async close(): Promise<void> {
    await this.#browser.close().catch(() => {});
  }
}

/** How the browser calls itself when nobody tells it otherwise. */
async function ownNameOf(browser: Browser): Promise<string> {
  const cdp = await browser.newBrowserCDPSession();
  const { userAgent } = await cdp.send('Browser.getVersion');
  await cdp.detach();
  return userAgent.replace('HeadlessChrome', 'Chrome');
}
