import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BodyCollector } from '../../../dist/src/browser/network/bodies.js';
import { contextFor, launchBrowser } from '../../../dist/src/browser/chromium/launch.js';
import { networkWords } from '../../../dist/src/browser/chromium/navigate.js';
import { openWindow } from '../../../dist/src/browser/chromium/own-window.js';
import { TextCollector } from '../../../dist/src/browser/network/texts.js';
import { WireBytes } from '../../../dist/src/browser/network/wire-bytes.js';
import { Visitor } from '../../../dist/src/browser/visit/visitor.js';
import type { VisitLimits } from '../../../dist/src/browser/visit/page-visit.js';
import type { Visit } from '../../../dist/src/browser/visit/visit-result.js';
import type { View } from '../../../src/core/visitors/view.js';
import { contentHashOf } from '../../../src/images/hash.js';
import { photograph } from '../../support/pictures.js';
import { serve } from '../../support/server.js';
import type { Answer } from '../../support/server.js';

const view: View = { name: 'wall', width: 800, height: 600, density: 1, touch: false, share: 1 };
const limits: VisitLimits = { load: 4_000, images: 2_000 };

let browser: Browser;
let context: BrowserContext;
let picture: Buffer;

beforeAll(async () => {
  browser = await launchBrowser();
  context = await browser.newContext(contextFor(view));
  picture = await photograph(100, 50).jpeg().toBuffer();
});
afterAll(() => browser.close());

function visitor(): Visitor {
  const bodies = new BodyCollector((body) => Promise.resolve(contentHashOf(body)));
  return new Visitor({
    context,
    view,
    bodies,
    texts: new TextCollector(() => ''),
    wireBytes: new WireBytes(),
    limits,
  });
}

/** Serves a page with a picture beside it, and visits it. */
async function visit(body: string, more: Readonly<Record<string, Answer>> = {}): Promise<Visit> {
  const { origin } = await serve({
    '/': { body: `<!doctype html><style>body{margin:0}img{display:block}</style>${body}` },
    '/a.jpg': { type: 'image/jpeg', body: picture },
    ...more,
  });
  return visitor().visit(`${origin}/`);
}

describe('a visit', () => {
  it('measures boxes as they are drawn', async () => {
    const { placements, images, error } = await visit(
      `<img src="/a.jpg" style="width:200px;height:80px;padding:10px 20px;border:5px solid">
       <img src="/a.jpg" style="width:100px;transform:scale(1.5)">
       <img src="/a.jpg" style="width:100px;visibility:hidden">
       <img src="/a.jpg" style="position:absolute;left:-500px;top:0;width:100px">
       <img src="/a.jpg" style="position:absolute;left:0;top:599px;width:100px">
       <img src="/a.jpg" style="position:absolute;left:0;top:601px;width:100px">`,
    );
    expect(error).toBeNull();
    expect(
      placements.map(({ slot, shown, aboveFold }) => [slot.width, slot.height, shown, aboveFold]),
    ).toEqual([
      [200, 80, true, true],
      [150, 75, true, true],
      [100, 50, false, true],
      [100, 50, true, false],
      [100, 50, true, true],
      [100, 50, true, false],
    ]);
    expect(images).toEqual([
      expect.objectContaining({ contentHash: contentHashOf(picture), declaredType: 'image/jpeg' }),
    ]);
  });

  it('gives selectors that find each element again, and no other', async () => {
    const { placements, finalUrl } = await visit(
      `<div id="kites"><p><img src="/a.jpg"></p><p><img src="/a.jpg"><img src="/a.jpg"></p></div>
       <div id="a:b c"><img src="/a.jpg"></div><div id="twice"><img src="/a.jpg"></div>
       <div id="twice"><img src="/a.jpg"></div><x-card><img src="/a.jpg"></x-card>`,
    );
    const page = await context.newPage();
    await page.setContent(await contentOf(page, finalUrl));
    const found = await page.evaluate(
      (selectors) => selectors.map((selector) => document.querySelectorAll(selector).length),
      placements.map(({ selector }) => selector),
    );
    await page.close();
    expect(found).toEqual(Array.from({ length: 7 }, () => 1));
    expect(new Set(placements.map(({ selector }) => selector)).size).toBe(7);
  });

  it('is not deceived by a page that changes what scripts are built from', async () => {
    const { placements, links } = await visit(
      `<script>
         Array.prototype.flatMap = () => []; Array.prototype.map = () => ['lie'];
         Element.prototype.getBoundingClientRect = () => ({ width: 1, height: 1, top: 0, left: 0 });
         JSON.stringify = () => '"lie"'; window.getComputedStyle = () => ({}); window.Promise = undefined;
         Object.defineProperty(HTMLImageElement.prototype, 'currentSrc', { get: () => 'http://lie.test/' });
       </script><img src="/a.jpg" width="300" height="150"><a href="/true">x</a>`,
    );
    expect(placements[0]).toMatchObject({ slot: { width: 300, height: 150 } });
    expect(placements[0]!.url).toMatch(/\/a\.jpg$/);
    expect(links[0]).toMatch(/\/true$/);
  });

  it('waits for lazy images further down, and leaves the page at its top', async () => {
    const { placements } = await visit(
      `<div style="height:4000px"></div><img loading="lazy" src="/a.jpg" width="100" height="50">`,
    );
    expect(placements[0]).toMatchObject({
      contentHash: contentHashOf(picture),
      aboveFold: false,
      loading: 'lazy',
    });
  });

  it('gives scripts that wait for the page to come to rest the time to do so', async () => {
    const { placements } = await visit(
      `<div style="height:1500px"></div><img data-src="/a.jpg" width="100" height="50">
       <div style="height:3000px"></div>
       <script>
         let timer
         const load = () => {
           for (const image of document.images) {
             const { top, bottom } = image.getBoundingClientRect()
             if (bottom > 0 && top < innerHeight) image.src = image.dataset.src
           }
         }
         document.addEventListener('scroll', () => { clearTimeout(timer); timer = setTimeout(load, 100) })
       </script>`,
    );
    expect(placements).toMatchObject([
      { contentHash: contentHashOf(picture), fetched: 'on-scroll' },
    ]);
  });

  it('draws pages small, of which they know nothing', async () => {
    const { placements } = await visit(
      `<p id="told"></p><img src="/a.jpg" srcset="/a.jpg 1x, /b.jpg 2x" style="width:50vw;height:50vh">
       <script>
         const { width, height, scale } = visualViewport
         const same = [innerWidth, innerHeight, devicePixelRatio, width, height, scale,
           matchMedia('(width: 800px) and (height: 600px) and (resolution: 1dppx)').matches]
         if (same.join() !== '800,600,1,800,600,1,true') document.querySelector('img').remove()
       </script>`,
    );
    expect(placements).toMatchObject([
      { slot: { width: 400, height: 300 }, shown: true, aboveFold: true, largest: true },
    ]);
  });

  it('draws all tabs of a context, so that none of them waits for frames', async () => {
    const frames = (page: Page) =>
      page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            let count = 0;
            const draw = () => {
              count++;
              requestAnimationFrame(draw);
            };
            draw();
            setTimeout(() => resolve(count), 1_500);
          }),
      );
    const own = await browser.newContext(contextFor(view));
    const pages = await Promise.all([openWindow(own), openWindow(own), openWindow(own)]);
    for (const count of await Promise.all(pages.map(frames))) expect(count).toBeGreaterThan(5);
    await own.close();
  });

  it('stops following a page that grows for ever', async () => {
    const { error, placements } = await visit(
      `<img src="/a.jpg" width="10"><div id="end" style="height:900px"></div>
       <script>addEventListener('scroll', () => document.body.append(Object.assign(document.createElement('div'), { style: 'height:5000px' })))</script>`,
    );
    expect(error).toBeNull();
    expect(placements).toHaveLength(1);
  });

  it('outlives dialogs, popups and scripts that never end', async () => {
    const talkative = await visit(
      `<script>alert(1); open('/'); confirm(2)</script><img src="/a.jpg">`,
    );
    expect(talkative).toMatchObject({ error: null });
    const slow = await visit('<img src="/a.jpg"><img src="/never.jpg">', {
      '/never.jpg': { type: 'image/jpeg', body: picture, wait: 30_000 },
    });
    expect(slow.error).toBeNull();
    expect(slow.warning).toBe('was still loading after 4 s');
    expect(slow.placements).toHaveLength(2);
  });

  it('outlives absurd markup, and measures what is sound in it', async () => {
    const { error, placements, links } = await visit(
      `<img src="http://["><img srcset=",,, 5x 3w" sizes="calc(((" src="/a.jpg">
       <img srcset="/a.jpg 99999999999999w, /a.jpg -1x" sizes="1e999px"><img srcset="/a.jpg 0x">
       <svg><image href="http://["/></svg><video poster="http://["></video><object data="http://[" type="image/png"></object>
       <div style="background:url(http://[);mask:url(((;width:9px;height:9px">x</div>
       <div style="background:url(/a.jpg) 0 0/calc(10% + 3px) 1e9px;width:50px;height:50px">x</div>
       <a href="http://[">x</a><a href="/ok">x</a><a href="/${'x'.repeat(100_000)}">x</a><a href="/a\u0007b">x</a>
       <img id="sound" src="/a.jpg" width="20" height="10"><table><div><p></table><img src="/a.jpg?${'y'.repeat(100_000)}"`,
    );
    expect(error).toBeNull();
    const sound = placements.find(({ selector }) => selector === '#sound');
    expect(sound).toMatchObject({ slot: { width: 20, height: 10 } });
    expect(sound!.contentHash).toBe(contentHashOf(picture));
    expect(
      placements.every(({ url, selector }) => url.length <= 4_096 && selector.length <= 4_096),
    ).toBe(true);
    expect(links.some((link) => link.endsWith('/ok'))).toBe(true);
    expect(links.every((link) => link.length <= 5_000)).toBe(true);
  });

  it('outlives a base that is not an address, with which the browser itself finds nothing', async () => {
    const { error, placements, links } = await visit(
      '<base href="http://["><img src="/a.jpg"><a href="/x">x</a>',
    );
    expect([error, placements, links]).toEqual([null, [], []]);
  });

  it('says of a download and of a file that is no page what they are', async () => {
    const { origin } = await serve({
      '/file': { type: 'application/octet-stream', body: 'x' },
      '/text': { type: 'text/plain', body: 'x' },
    });
    expect((await visitor().visit(`${origin}/file`)).error).toBe('is a download');
    expect((await visitor().visit(`${origin}/text`)).error).toBe('is text/plain, not a page');
  });

  it('counts the bytes of the first fetch where the cache answers', async () => {
    const { origin } = await serve({
      '/': { body: '<!doctype html><img src="/a.jpg">' },
      '/a.jpg': { type: 'image/jpeg', body: picture },
    });
    const same = visitor();
    const [first, second] = [await same.visit(`${origin}/`), await same.visit(`${origin}/`)];
    expect(first.images[0]!.transferBytes).toBeGreaterThan(picture.length);
    expect(second.images).toEqual(first.images);
    expect(second.bytesByType.image).toBe(first.bytesByType.image);
  });

  it('stays on a page that may be the last, until there is another', async () => {
    const { origin, asked } = await serve({
      '/': {
        body: `<!doctype html><img src="/a.jpg"><script>
          addEventListener('pagehide', () => navigator.sendBeacon('/left'));
        </script>`,
      },
      '/other': { body: '<!doctype html><p>No picture.' },
      '/a.jpg': { type: 'image/jpeg', body: picture },
    });
    const before = context.pages();
    const same = visitor();
    await same.visit(`${origin}/`, { mayBeLast: true });
    const page = context.pages().find((one) => !before.includes(one))!;
    expect(page.url()).toBe(`${origin}/`);
    expect(asked).not.toContain('/left');
    const { images, bytesByType, resources } = await same.visit(`${origin}/other`);
    await expect.poll(() => asked).toContain('/left');
    // Nothing of the page before counts.
    expect(images).toEqual([]);
    expect(bytesByType.image).toBe(0);
    expect(resources.map(({ url }) => url)).toEqual([`${origin}/other`]);
    await expect.poll(() => page.url()).toBe('about:blank');
  });
});

describe('networkWords', () => {
  it('says what an error of the network means, and keeps the name of an unknown one', () => {
    expect(networkWords('ERR_NAME_NOT_RESOLVED')).toBe('no such host');
    expect(networkWords('ERR_CERT_DATE_INVALID')).toContain('certificate does not verify');
    expect(networkWords('ERR_SOMETHING_NEW')).toBe('ERR_SOMETHING_NEW');
  });
});

async function contentOf(page: Page, url: string): Promise<string> {
  await page.goto(url);
  return page.content();
}
