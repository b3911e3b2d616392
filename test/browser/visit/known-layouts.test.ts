import type { Browser, BrowserContext } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { BodyCollector } from '../../../dist/src/browser/network/bodies.js';
import { contextFor, launchBrowser } from '../../../dist/src/browser/chromium/launch.js';
import { TextCollector } from '../../../dist/src/browser/network/texts.js';
import { WireBytes } from '../../../dist/src/browser/network/wire-bytes.js';
import { Visitor } from '../../../dist/src/browser/visit/visitor.js';
import { contentHashOf } from '../../../src/images/hash.js';
import { photograph } from '../../support/pictures.js';
import { serve } from '../../support/server.js';

const view = { name: 'wall', width: 800, height: 600, density: 1, touch: false, share: 1 };

let browser: Browser;
let context: BrowserContext;
let picture: Buffer;

beforeAll(async () => {
  browser = await launchBrowser();
  context = await browser.newContext(contextFor(view));
  picture = await photograph(300, 150).jpeg().toBuffer();
});
afterAll(() => browser.close());

const after = '<p>What stands below</p>';

it.each([
  ['no attributes', `<img src="/a.jpg" alt="">${after}`, false],
  ['a text in place of it', `<img src="/a.jpg" alt="Kites over the bay">${after}`, false],
  ['width and height', `<img src="/a.jpg" width="300" height="150">${after}`, true],
  [
    'width and height that a style sheet scales',
    `<div style="width:200px"><img src="/a.jpg" width="300" height="150" style="width:100%;height:auto"></div>${after}`,
    true,
  ],
  [
    'width and height in another ratio',
    `<img src="/a.jpg" width="300" height="300" style="width:300px;height:auto">${after}`,
    false,
  ],
  [
    'a logo of a set height',
    `<header style="display:flex"><img src="/a.jpg" style="height:60px;width:auto"><p>Brindle Bay</p></header>`,
    false,
  ],
  ['an aspect ratio', `<img src="/a.jpg" style="width:50%;aspect-ratio:2">${after}`, true],
  [
    'a frame that keeps its size',
    `<div style="height:150px;overflow:hidden"><img src="/a.jpg" style="width:100%"></div>${after}`,
    true,
  ],
  [
    'a frame filled by it',
    `<div style="height:150px;position:relative"><img src="/a.jpg" style="position:absolute;width:100%;height:100%"></div>${after}`,
    true,
  ],
  [
    'a link around it',
    `<div><a href="/b"><img src="/a.jpg" style="width:300px"></a></div>${after}`,
    false,
  ],
  [
    'a picture with a source',
    `<picture><source srcset="/a.jpg" width="300" height="150"><img src="/b.jpg" style="width:300px;height:auto"></picture>${after}`,
    true,
  ],
])('knows whether a page jumps: %s', async (_, body, known) => {
  const { origin } = await serve({
    '/': {
      body: `<!doctype html><style>body{margin:0}img{display:block}</style>${body}`,
    },
    '/a.jpg': { type: 'image/jpeg', body: picture },
  });
  const { placements } = await visitorOf().visit(`${origin}/`);
  expect(placements.map(({ markup }) => markup?.dimensions)).toEqual([known]);
  expect((await shiftOf(origin)) === 0).toBe(known);
});

it('leaves what is one too many to its markup', async () => {
  const bare = '<p><img src="/a.jpg" alt=""></p>'.repeat(70);
  const { origin } = await serve({
    '/': { body: `<!doctype html><style>img{display:block}</style>${bare}` },
    '/a.jpg': { type: 'image/jpeg', body: picture },
  });
  const { placements } = await visitorOf().visit(`${origin}/`);
  expect(placements).toHaveLength(70);
  expect(placements.filter(({ markup }) => markup?.dimensions)).toEqual([]);
});

it('breaks no policy of the page, and makes no request of its own', async () => {
  const { origin, asked } = await serve({
    '/': {
      headers: { 'content-security-policy': "img-src 'self'; report-uri /broken" },
      body: '<!doctype html><img src="/a.jpg" width="300" height="150" alt="">',
    },
    '/a.jpg': { type: 'image/jpeg', body: picture },
    '/broken': { status: 204 },
  });
  const requests: string[] = [];
  context.on('request', (request) => requests.push(request.url()));
  const { placements } = await visitorOf().visit(`${origin}/`);
  expect(placements.map(({ markup }) => markup?.dimensions)).toEqual([true]);
  expect(asked.filter((path) => path !== '/favicon.ico')).toEqual(['/', '/a.jpg']);
  expect(requests.filter((url) => !url.startsWith(origin))).toEqual([]);
});

function visitorOf(): Visitor {
  const bodies = new BodyCollector((bytes) => Promise.resolve(contentHashOf(bytes)));
  return new Visitor({
    context,
    view,
    bodies,
    texts: new TextCollector(() => ''),
    wireBytes: new WireBytes(),
  });
}

/** The sum of the browser's own layout shifts (W3C Layout Instability) when an image arrives after the first paint. */
async function shiftOf(url: string): Promise<number> {
  const fresh = await browser.newContext(contextFor(view));
  try {
    const page = await fresh.newPage();
    let release = (): void => {};
    const painted = new Promise<void>((resolve) => (release = resolve));
    await page.route('**/a.jpg', async (route) => {
      await painted;
      await route.continue();
    });
    await page.goto(url, { waitUntil: 'commit' });
    await page.waitForFunction(() => performance.getEntriesByType('paint').length > 0);
    release();
    await page.waitForLoadState('load');
    return await page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          let sum = 0;
          new PerformanceObserver((list) => {
            for (const entry of list.getEntries())
              sum += (entry as PerformanceEntry & { value: number }).value;
          }).observe({ type: 'layout-shift', buffered: true });
          // Told after the frame in which the image was drawn.
          requestAnimationFrame(() => setTimeout(() => resolve(sum), 300));
        }),
    );
  } finally {
    await fresh.close();
  }
}
