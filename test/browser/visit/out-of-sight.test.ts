import type { Browser, Page } from 'playwright-core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contextFor, launchBrowser } from '../../../dist/src/browser/chromium/launch.js';
import { firstScreenPicture } from '../../../dist/src/browser/visit/first-screen.js';
import { Tab } from '../../../dist/src/browser/visit/tab.js';
import { defaultViews } from '../../../dist/src/index.js';
import { serve } from '../../support/server.js';
import type { TestServer } from '../../support/server.js';

const none = { watch: () => {} } as never;

const body = `<!doctype html><meta name="viewport" content="width=device-width"><style>body{margin:0}</style>
  <div id="top" style="height:50vh;background:rgb(0,0,255)"></div>
  <div style="height:300vh;background:rgb(255,128,0)"></div><p id="end">the end</p>`;

let browser: Browser;
let site: TestServer;

beforeAll(async () => {
  browser = await launchBrowser(undefined, { oneProcess: true });
  site = await serve({ '/': { body } }, afterAll);
});
afterAll(() => browser.close());

describe.each(defaultViews)('a page that is not painted, in $name', (view) => {
  const opened = async () => {
    const context = await browser.newContext(contextFor(view));
    const [tab, plain] = await Promise.all([
      Tab.open({ context, view, bodies: none, texts: none, wireBytes: none }),
      browser.newContext(contextFor(view)).then((other) => other.newPage()),
    ]);
    await Promise.all([tab.page, plain].map((page) => page.goto(`${site.origin}/`)));
    return { tab, plain };
  };

  it('is told nothing of it', async () => {
    const { tab, plain } = await opened();
    const told = await whatItIsTold(plain);
    expect(told.atEnd).toMatchObject({ seen: ['end'], drawn: true });
    expect(await whatItIsTold(tab.page)).toEqual(told);
  });

  it('has a picture of its first screen', async () => {
    const { tab } = await opened();
    const picture = sharp((await firstScreenPicture(tab.cdp, view))!);
    const { width = 0, height = 0 } = await picture.metadata();
    expect(width / height).toBeCloseTo(view.width / view.height, 1);
    const colourAt = async (part: number) => {
      const spot = { left: width >> 1, top: Math.round(height * part), width: 1, height: 1 };
      const { data } = await picture.clone().extract(spot).removeAlpha().raw().toBuffer({
        resolveWithObject: true,
      });
      return [...data].map((value) => Math.round(value / 64));
    };
    expect(await colourAt(0.1)).toEqual([0, 0, 4]);
    expect(await colourAt(0.9)).toEqual([4, 2, 0]);
  });
});

/** What scripts of a page know of their window, at its top and at its end. */
function whatItIsTold(page: Page) {
  return page.evaluate(async () => {
    const seen = () =>
      new Promise<string[]>((resolve) => {
        const observer = new IntersectionObserver((entries) => {
          const inView = entries.filter(({ isIntersecting }) => isIntersecting);
          resolve(inView.map(({ target }) => target.id));
        });
        for (const id of ['top', 'end']) observer.observe(document.getElementById(id)!);
      });
    const drawn = () =>
      new Promise<boolean>((resolve) => {
        requestAnimationFrame(() => resolve(true));
        setTimeout(() => resolve(false), 5_000);
      });
    const now = async () => ({
      seen: await seen(),
      drawn: await drawn(),
      inner: [innerWidth, innerHeight],
      outer: [outerWidth, outerHeight],
      screen: [screen.width, screen.height, screen.availWidth, screen.availHeight],
      visual: [visualViewport!.width, visualViewport!.height, visualViewport!.scale],
      scrolled: [scrollX, scrollY, visualViewport!.pageTop],
      end: document.getElementById('end')!.getBoundingClientRect().toJSON() as unknown,
      under: document.elementFromPoint(9, 9)?.id,
      density: devicePixelRatio,
      hovers: matchMedia('(hover: hover)').matches,
      state: document.visibilityState,
    });
    const atTop = await now();
    scrollTo(0, document.documentElement.scrollHeight);
    return { atTop, atEnd: await now() };
  });
}
