import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chromium } from 'playwright-core';
import type { Browser } from 'playwright-core';
import { readDeployment } from '../../dist/demo/deploy.js';
import { drawPictures } from '../../dist/demo/pictures/draw.js';
import { serveDemo } from '../../dist/demo/server.js';
import type { DemoSite } from '../../dist/demo/server.js';
import { pages } from '../../dist/demo/site/pages.js';
import { findBrowser } from '../../dist/src/browser/find-browser.js';
import { compareLooks } from '../../src/core/pixels/looks.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import type { Size } from '../../src/core/base/size.js';
import { readLuma } from '../../src/images/picture.js';
import { cacheFolder } from '../../src/cli/cache-folder.js';
import { temporaryFolder } from '../support/folder.js';
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

/** The festival's site, surveyed and refitted; and the same site with the refit deployed by its own papers. */
beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const pictures = await drawPictures(cacheFolder(), () => {});
  before = await serveDemo(pictures);
  await survey(before, 'before');
  const refitted = await run(['refit', '--out', 'new', '--review', '0'], { cwd });
  expect(refitted.status).toBe(0);
  after = await serveDemo(pictures, 0, await readDeployment(join(cwd, 'new'), origin));
  await survey(after, 'after');
}, 400_000);
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
    const [was, is] = [await ranked('before'), await ranked('after')];
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
    const [was, is] = [await ranked('before'), await ranked('after')];
    expect(blurred(is).filter((one) => !blurred(was).includes(one))).toEqual([]);
  });

  it('looks the same on every page, in every view', { timeout: 400_000 }, async () => {
    const browsers = await Promise.all([before, after].map(open));
    try {
      for (const view of views)
        for (const { path } of pages) {
          const look = () =>
            Promise.all(
              browsers.map(async (browser) => readLuma(await picture(browser, path, view), 1)),
            );
          let [was, is] = await look();
          // What a busy machine drew too early is drawn again; what is wrong stays wrong.
          if (compareLooks(was!, is!).similarity < defaultPolicy.similarity)
            [was, is] = await look();
          const { similarity } = compareLooks(was!, is!);
          const where = `${path} in ${view.name}`;
          expect([where, was!.height]).toEqual([where, is!.height]);
          expect([where, similarity]).toEqual([
            where,
            expect.toSatisfy((found: number) => found >= defaultPolicy.similarity),
          ]);
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

/** A whole page as it looks when everything on it has come. */
async function picture(browser: Browser, path: string, view: (typeof views)[number]) {
  const page = await browser.newPage({
    viewport: { width: view.width, height: view.height },
    deviceScaleFactor: view.density,
    isMobile: view.touch,
    hasTouch: view.touch,
  });
  try {
    await page.goto(origin.slice(0, -1) + path);
    await page.evaluate(async () => {
      const rest = (time: number) => new Promise((resolve) => setTimeout(resolve, time));
      for (let top = 0; top < document.documentElement.scrollHeight; top += innerHeight) {
        scrollTo(0, top);
        await rest(60);
      }
      scrollTo(0, 0);
      // A busy machine may not have noticed that a lazy image came by, and draw others before their pixels are there.
      for (const image of document.images) {
        image.loading = 'eager';
        image.decoding = 'sync';
      }
      for (let round = 0; round < 100; round++) {
        if ([...document.images].every((image) => image.complete || !image.currentSrc)) break;
        await rest(50);
      }
      const there = [...document.images].filter(({ naturalWidth }) => naturalWidth > 0);
      await Promise.all(there.map((image) => image.decode().catch(() => undefined)));
      await rest(150);
    });
    const draw = () => page.screenshot({ fullPage: true, scale: 'css', animations: 'disabled' });
    let last = await draw();
    for (let round = 0; round < 5; round++) {
      await page.waitForTimeout(300);
      const next = await draw();
      if (next.equals(last)) break;
      last = next;
    }
    return last;
  } finally {
    await page.close();
  }
}
