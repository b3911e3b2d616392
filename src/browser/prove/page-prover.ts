import type { Browser, BrowserContext, Page } from 'playwright-core';
import type { Access } from '../../core/address/access.js';
import type { MarkupTry } from '../../core/refit/markup/markup-try.js';
import type { View } from '../../core/visitors/view.js';
import type { Reach } from '../../reach/reach.js';
import { IsolatedWorld } from '../chromium/isolated-world.js';
import { contextFor, launchBrowser } from '../chromium/launch.js';
import { navigate } from '../chromium/navigate.js';
import { userAgentOf } from '../chromium/user-agent.js';
import { within } from '../chromium/within.js';
import { addCookies, sendHeaders } from '../chromium/access.js';
import { forbidsScripts } from '../network/forbids-scripts.js';

/** A file that is served in place of whatever the site has at its address; or another address of the site. */
export type ProvedFile =
  | { readonly mediaType: string; readonly body: () => Promise<Buffer> }
  | { readonly instead: string };

export interface ProverOptions {
  readonly views: readonly View[];
  readonly reach: Reach;
  readonly accesses: readonly Access[];
  /** Bytes that all processes of the browser may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
  /** Rules that come with the markup. */
  readonly rules: string;
  readonly fileAt: (url: string) => ProvedFile | undefined;
}

/** Markup for one element. */
export interface ProvedMarkup {
  readonly selector: string;
  readonly text: string;
}

/**
 * Milliseconds that a page may take to load, its images and one file of the markup to arrive, an element to be made by a
 * script, and all of it.
 */
const patience = { load: 30_000, images: 8_000, file: 5_000, element: 3_000, page: 120_000 };

/** A browser in which markup is tried in the pages that it is for. */
export class PageProver {
  readonly #browser: Browser;
  readonly #contexts: ReadonlyMap<string, BrowserContext>;
  readonly #options: ProverOptions;

  private constructor(
    browser: Browser,
    contexts: ReadonlyMap<string, BrowserContext>,
    options: ProverOptions,
  ) {
    this.#browser = browser;
    this.#contexts = contexts;
    this.#options = options;
  }

  /** @throws BrowserError when no browser can be started. */
  static async open(options: ProverOptions): Promise<PageProver> {
    const browser = await launchBrowser(options.reach, {
      oneProcess: true,
      memory: options.memory,
    });
    try {
      const contexts = new Map<string, BrowserContext>();
      for (const view of options.views) {
        const userAgent = `${await userAgentOf(browser, view)} ZealousLynx`;
        const context = await browser.newContext({ ...contextFor(view), userAgent });
        await context.addInitScript({ content: 'window.print = () => {};' });
        await addCookies(context, options.accesses);
        await context.route(
          (url) => options.fileAt(url.href) !== undefined,
          async (route) => {
            const file = options.fileAt(route.request().url())!;
            if ('instead' in file) return route.continue({ url: file.instead });
            await route.fulfill({ contentType: file.mediaType, body: await file.body() });
          },
        );
        contexts.set(view.name, context);
      }
      return new PageProver(browser, contexts, options);
    } catch (error) {
      await browser.close().catch(() => {});
      throw error;
    }
  }

  async close(): Promise<void> {
    await this.#browser.close().catch(() => {});
  }

  /**
   * Tries markup in a page, one after the other: what holds stays in the page, what does not is taken back.
   *
   * @param judge why a try does not hold, or `null`
   * @returns for each markup what is wrong with it; `null` if it holds, `undefined` if the page has no such element now
   * @throws Error when the page cannot be loaded or measured.
   */
  async prove(
    url: string,
    view: View,
    markup: readonly ProvedMarkup[],
    judge: (tried: MarkupTry, at: number) => string | null,
  ): Promise<(string | null | undefined)[]> {
    const page = await this.#contexts.get(view.name)!.newPage();
    try {
      const work = this.#proveIn(page, url, markup, judge);
      return await within(patience.page, work, () => 'the page does not respond');
    } finally {
      await page.close().catch(() => {});
    }
  }

  async #proveIn(
    page: Page,
    url: string,
    markup: readonly ProvedMarkup[],
    judge: (tried: MarkupTry, at: number) => string | null,
  ): Promise<(string | null | undefined)[]> {
    const cdp = await page.context().newCDPSession(page);
    await sendHeaders(cdp, this.#options.accesses);
    let forbids = false;
    page.on('response', (response) => {
      if (!response.request().isNavigationRequest() || response.frame() !== page.mainFrame())
        return;
      const headers = Object.entries(response.headers());
      forbids = forbidsScripts({
        responseHeaders: headers.map(([name, value]) => ({ name, value })),
      });
    });
    const trouble = await navigate(page, url, patience.load);
    if (trouble?.fatal) throw new Error(trouble.words);
    // What tries markup waits for files, and nothing can be waited for there.
    if (forbids) throw new Error('no script may run in it, so markup cannot be tried in it');
    const world = await IsolatedWorld.open(cdp);
    await world.call('hurryImages');
    await world.settleImages(patience.images);
    await world.call('adoptRules', this.#options.rules);
    await world.call('rememberLayout');
    const results: (string | null | undefined)[] = [];
    for (const [at, { selector, text }] of markup.entries())
      results.push(await this.#tryOne(world, selector, text, (tried) => judge(tried, at)));
    return results;
  }

  async #tryOne(
    world: IsolatedWorld,
    selector: string,
    text: string,
    judge: (tried: MarkupTry) => string | null,
  ): Promise<string | null | undefined> {
    for (let attempt = 1; ; attempt++) {
      await world.call('untilThere', selector, patience.element);
      const tried = await world.call<MarkupTry | null>('tryMarkup', selector, text, patience.file);
      if (!tried) return undefined;
      const problem = judge(tried);
      if (problem === null) return null;
      await world.call('revertMarkup');
      const restless = await world.call<number>('forgetRestless');
      // What moves by itself proves nothing.
      if (restless === 0 || attempt > 2) return problem;
    }
  }
}
