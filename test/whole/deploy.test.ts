import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chromium } from 'playwright-core';
import type { Browser, Page } from 'playwright-core';
import { readDeployment } from '../../dist/demo/deploy.js';
import { drawPictures } from '../../dist/demo/pictures/draw.js';
import { serveDemo } from '../../dist/demo/server.js';
import type { DemoSite } from '../../dist/demo/server.js';
import { pages } from '../../dist/demo/site/pages.js';
import { findBrowser } from '../../dist/src/browser/chromium/find-browser.js';
import { compareLooks } from '../../src/core/pixels/looks.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import type { Size } from '../../src/core/base/size.js';
import { readLuma } from '../../src/images/picture.js';
import { temporaryFolder } from '../support/folder.js';
import { copyDemoWorkspace, demoCache, sharedDemo } from '../support/shared-demo.js';
import { run, runJson, twoViews } from '../support/program.js';

interface Ranked {
  readonly perVisit: { readonly wasteBytes: number; readonly sentBytes: number };
  readonly images: readonly {
    readonly url: string;
    readonly intrinsic: Size | null;
    readonly placements: readonly {
      readonly page: string;
      readonly view: string;
      readonly selector: string;
      readonly kind: string;
      readonly rendered: Size;
      readonly shown: boolean;
    }[];
  }[];
}

const views = chooseViews(defaultViews, ['phone', 'laptop']);
const origin = 'http://brindlebay.test/';
let cwd: string;
let before: DemoSite;
let after: DemoSite;

/** The festival's site, as the demo surveyed and refitted it; and the same site with the refit deployed by its own papers. */
beforeAll(async () => {
  const demo = await sharedDemo();
  expect(demo.outcome.status).toBe(0);
  cwd = temporaryFolder(() => {});
  copyDemoWorkspace(demo, cwd);
  const pictures = await drawPictures(demoCache(), () => {});
  before = await serveDemo(pictures);
  const refit = join(demo.cwd, 'brindle-bay-refit');
  after = await serveDemo(pictures, 0, await readDeployment(refit, origin));
  await survey(after, 'deployed');
});
afterAll(async () => {
  await Promise.all([before.close(), after.close()]);
  rmSync(cwd, { recursive: true, force: true });
});

async function survey(site: DemoSite, label: string): Promise<void> {
  const address = Object.values(site.hosts)[0]!;
  const call = ['survey', origin, '--map-host', `*.test=${address}`, '--label', label];
  const { status, stderr } = await run([...call, ...twoViews], { cwd });
  expect([status, stderr]).toEqual([0, expect.any(String)]);
}

const ranked = (label: string) =>
  runJson<Ranked>(['rank', '--survey', label, '--by', 'image', '--top', '1000'], { cwd });

describe('a refit that was deployed by its own papers', () => {
  it('leaves less than a twentieth of the waste, over all pages and views', async () => {
    const [was, is] = [await ranked('brindle-bay'), await ranked('deployed')];
    expect(was.perVisit.wasteBytes).toBeGreaterThan(2_000_000);
    expect(is.perVisit.wasteBytes).toBeLessThan(was.perVisit.wasteBytes * 0.05);
  });

  it('blurs nothing that was not blurred before', async () => {
    /** What is drawn larger than it is, by more than the rounding of a pixel, at the density that policy allows. */
    const blurred = ({ images }: Ranked) =>
      images.flatMap(({ intrinsic, placements }) =>
        placements
          .filter(({ view, rendered, shown }) => {
            const seen = views.find(({ name }) => name === view)!.density;
            const density = Math.min(seen, defaultPolicy.density);
            return shown && intrinsic && rendered.width * density > intrinsic.width * 1.02;
          })
          // Each image stands in a picture now.
          .map(({ page, view, selector }) =>
            [page, view, selector.replace(' > picture', '')].join(),
          ),
      );
    const [was, is] = [await ranked('brindle-bay'), await ranked('deployed')];
    expect(blurred(is).filter((one) => !blurred(was).includes(one))).toEqual([]);
  });

  it('looks the same on every page, in every view', { timeout: 400_000 }, async () => {
    const browsers = await Promise.all([before, after].map(open));
    try {
      for (const view of views) {
        const tabs = await Promise.all(browsers.map((browser) => tabOf(browser, view)));
        for (const { path } of pages) {
          const look = async (settled: boolean) =>
            Promise.all(tabs.map(async (tab) => readLuma(await picture(tab, path, settled), 1)));
          let [was, is] = await look(false);
          // A page that a busy machine drew too early is drawn until it rests; what is wrong stays wrong.
          if (compareLooks(was!, is!).similarity < defaultPolicy.similarity)
            [was, is] = await look(true);
          const { similarity } = compareLooks(was!, is!);
          const where = `${path} in ${view.name}`;
          expect([where, was!.height]).toEqual([where, is!.height]);
          expect([where, similarity]).toEqual([
            where,
            expect.toSatisfy((found: number) => found >= defaultPolicy.similarity),
          ]);
        }
        await Promise.all(tabs.map((tab) => tab.close()));
      }
    } finally {
      await Promise.all(browsers.map((browser) => browser.close()));
    }
  });
});

function open({ hosts }: DemoSite): Promise<Browser> {
  const address = Object.values(hosts)[0]!;
  return chromium.launch({
    executablePath: findBrowser(),
    args: [`--host-resolver-rules=MAP *.test ${address}`, '--disable-background-networking'],
    chromiumSandbox: process.getuid?.() !== 0,
  });
}

function tabOf(browser: Browser, view: (typeof views)[number]): Promise<Page> {
  return browser.newPage({
    viewport: { width: view.width, height: view.height },
    deviceScaleFactor: view.density,
    isMobile: view.touch,
    hasTouch: view.touch,
  });
}

/**
 * A whole page as it looks when everything on it has come.
 *
 * @param settled draws it until two drawings are the same
 */
async function picture(tab: Page, path: string, settled: boolean): Promise<Buffer> {
  await tab.goto(origin.slice(0, -1) + path);
  await tab.evaluate(async () => {
    const nextFrame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    for (let top = 0; top < document.documentElement.scrollHeight; top += innerHeight) {
      scrollTo(0, top);
      await nextFrame();
    }
    scrollTo(0, 0);
    // A busy machine may not have noticed that a lazy image came by, and draw others before their pixels are there.
    for (const image of document.images) {
      image.loading = 'eager';
      image.decoding = 'sync';
    }
    for (let round = 0; round < 500; round++) {
      // One that has only just been made eager has no current source yet.
      const isThere = (image: HTMLImageElement) =>
        image.complete || (image.currentSrc === '' && !image.matches('[src], [srcset]'));
      if ([...document.images].every(isThere)) break;
      await nextFrame();
    }
    const there = [...document.images].filter(({ naturalWidth }) => naturalWidth > 0);
    await Promise.all(there.map((image) => image.decode().catch(() => undefined)));
    await nextFrame();
  });
  const draw = () => tab.screenshot({ fullPage: true, scale: 'css', animations: 'disabled' });
  let last = await draw();
  for (let round = 0; settled && round < 5; round++) {
    await tab.waitForTimeout(300);
    const next = await draw();
    if (next.equals(last)) break;
    last = next;
  }
  return last;
}
