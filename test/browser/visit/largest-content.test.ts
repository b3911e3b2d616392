import type { Browser, BrowserContext } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { IsolatedWorld } from '../../../dist/src/browser/chromium/isolated-world.js';
import { contextFor, launchBrowser } from '../../../dist/src/browser/chromium/launch.js';
import { photograph } from '../../support/pictures.js';
import { serve } from '../../support/server.js';

const view = { name: 'wall', width: 800, height: 600, density: 1, touch: false, share: 1 };

let browser: Browser;
let context: BrowserContext;
let picture: Buffer;

beforeAll(async () => {
  browser = await launchBrowser();
  context = await browser.newContext(contextFor(view));
  picture = await photograph(1_200, 600).jpeg().toBuffer();
});
afterAll(() => browser.close());

const image = (style: string) => `<img src="/a.jpg" alt="" style="${style}">`;
const words = 'Kites over the bay, and a wind that carries them '.repeat(4);

it.each([
  ['has edges between pixels', image('width:600.6px;height:333.3px'), true],
  ['is cut off', `<div style="width:90px;height:90px;overflow:hidden">${image('')}</div>`, true],
  [
    'fills a part of its box',
    image('width:600px;height:580px;object-fit:contain;background:#eee'),
    true,
  ],
  [
    'is scaled down to a part of its box',
    image('width:600px;height:580px;object-fit:scale-down;background:#eee'),
    true,
  ],
  ['covers the window', `<style>body{margin:0}</style>${image('width:100vw;height:100vh')}`, false],
  ['is transparent', `<h1>Kites</h1>${image('opacity:0;width:300px')}`, false],
  ['is hidden', `<h1>Kites</h1>${image('visibility:hidden;width:300px')}`, false],
  [
    'is smaller than a text',
    `<p style="font-size:40px">${words}</p>${image('position:absolute;left:0;top:0;width:60px')}`,
    false,
  ],
])(
  'waits for no paint that will not be reported, where the picture %s',
  async (_, body, isLargest) => {
    const site = await serve({
      '/': { body: `<!doctype html><title>t</title>${body}` },
      '/a.jpg': { type: 'image/jpeg', body: picture },
    });
    const page = await context.newPage();
    await page.goto(`${site.origin}/`);
    const cdp = await context.newCDPSession(page);
    const world = await IsolatedWorld.open(cdp);
    // What was not reported before the first call is reported after it: whatever is waited for then is waited for in vain.
    await world.call('largestContent');
    const frameId = (await cdp.send('Page.getFrameTree')).frameTree.frame.id;
    const same = { frameId, worldName: 'zealous-lynx' };
    const { executionContextId: contextId } = await cdp.send('Page.createIsolatedWorld', same);
    const evaluate = async (expression: string) =>
      (await cdp.send('Runtime.evaluate', { expression, contextId })).result.value as unknown;
    await evaluate(
      `globalThis.waits = []; const wait = setTimeout;
      globalThis.setTimeout = (call, ms) => wait(call, ms, waits.push(ms)); zealousLynx ? 1 : 0`,
    );
    expect(await world.call('largestContent')).toBe(isLargest ? `${site.origin}/a.jpg` : null);
    const waits = JSON.parse((await evaluate('JSON.stringify(waits)')) as string) as number[];
    // That it reads the entries once is no wait, and a look at what is in view may take a frame.
    expect(waits.filter((ms) => ms === 0)).toHaveLength(1);
    await page.close();
  },
);
