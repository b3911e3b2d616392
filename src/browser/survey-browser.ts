import type { Browser } from 'playwright-core';
import type { View } from '../core/view.js';
import { BodyCollector } from './bodies.js';
import type { KeepBody } from './bodies.js';
import { contextFor, launchBrowser } from './launch.js';
import type { HostMap } from './launch.js';
import { Visitor } from './visit.js';
import type { Visit, VisitLimits } from './visit.js';

/** Loads a page in every view. */
export interface PageVisitor {
  visit(url: string): Promise<Visit[]>;
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

  /**
   * @param userAgent how the browser names itself; left out, its own name with the tool's behind it
   * @throws BrowserError when no browser can be started.
   */
  static async open(
    views: readonly View[],
    tabs: number,
    keepBody: KeepBody,
    hosts: HostMap,
    limits: VisitLimits,
    userAgent?: string,
  ): Promise<SurveyBrowser> {
    const browser = await launchBrowser(hosts, { oneProcess: true });
    const agent = userAgent ?? `${await ownNameOf(browser)} ZealousLynx`;
    const swept = views.find(({ touch }) => !touch) ?? views[0];
    const rows = await Promise.all(
      views.map(async (view) => {
        const context = await browser.newContext({ ...contextFor(view), userAgent: agent });
        const bodies = new BodyCollector(keepBody);
        const wireBytes = new Map<string, number>();
        return Array.from(
          { length: tabs },
          () => new Visitor(context, view, bodies, wireBytes, view === swept),
        );
      }),
    );
    const visitors = Array.from({ length: tabs }, (_, index) => ({
      visit: async (url: string) => {
        const visits: Visit[] = [];
        for (const row of rows) visits.push(await row[index]!.visit(url, limits));
        return visits;
      },
    }));
    return new SurveyBrowser(browser, visitors);
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
