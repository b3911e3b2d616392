import { once } from 'node:events';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';
import type { Browser } from 'playwright-core';
import sirv from 'sirv';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contextFor } from '../../src/browser/chromium/launch.js';
import { findSurveyBrowser } from '../../src/browser/chromium/find-browser.js';
import type { Size } from '../../src/core/base/size.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson } from '../support/program.js';

/** Hosts that the templates name, found where nobody listens: a test reaches loopback alone. */
const elsewhere = [
  'cdn.jsdelivr.net',
  'cdn.startbootstrap.com',
  'cdnjs.cloudflare.com',
  'fonts.googleapis.com',
  'use.fontawesome.com',
];
const maps = elsewhere.flatMap((host) => ['--map-host', `${host}=127.0.0.1:9`]);
const views = chooseViews(defaultViews, ['phone', 'laptop']);

interface Ranked {
  readonly images: readonly {
    readonly url: string;
    readonly intrinsic: Size | null;
    readonly placements: readonly {
      readonly view: string;
      readonly kind: string;
      readonly shown: boolean;
      readonly selector: string;
      readonly rendered: Size;
      readonly slot: Size;
    }[];
  }[];
}

/** What a script that knows nothing of the program reads of a page. */
interface Seen {
  readonly view: string;
  readonly url: string;
  readonly natural: Size;
  readonly box: Size;
}

describe.each(['agency', 'creative', 'landing-page'])('the HTML template %s', (name) => {
  let server: Server;
  let browser: Browser;
  let origin: string;
  const cwd = temporaryFolder(() => {});

  beforeAll(async () => {
    const folder = fileURLToPath(
      new URL(`../../node_modules/startbootstrap-${name}/dist`, import.meta.url),
    );
    const files = sirv(folder, { etag: true });
    server = createServer((request, response) => files(request, response));
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
    origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const rules = elsewhere.map((host) => `MAP ${host} 127.0.0.1:9`).join(',');
    const args = [`--host-resolver-rules=${rules}`, '--no-sandbox'];
    browser = await chromium.launch({ executablePath: findSurveyBrowser()!, args });
    const named = views.flatMap((view) => ['--view', view.name]);
    const { status, stderr } = await run(
      ['survey', `${origin}/`, '--pages', '1', ...named, ...maps],
      { cwd },
    );
    expect([status, stderr]).toEqual([0, expect.any(String)]);
  });
  afterAll(async () => {
    await browser.close();
    server.closeAllConnections();
    server.close();
  });

  it('has every img where an independent script finds it, in its size to the pixel', async () => {
    const { images } = await runJson<Ranked>(['rank', '--by', 'image', '--top', '1000'], { cwd });
    const measured = images.flatMap(({ url, intrinsic, placements }) =>
      placements
        .filter(({ kind, shown }) => kind === 'img' && shown && intrinsic !== null)
        .map(({ view, slot }) => keyOf({ view, url, natural: intrinsic, box: slot })),
    );
    const expected = (await Promise.all(views.map((view) => see(view)))).flat();
    expect(expected.length).toBeGreaterThan(5);
    expect(measured.toSorted()).toEqual(expected.map(keyOf).toSorted());
  });

  it('weighs what a cold load of it weighs, to 1 %', async () => {
    const { page } = await runJson<{ page: { bytesByType: Record<string, number> } }>(
      ['explain', `${origin}/`],
      { cwd },
    );
    const told = Object.values(page.bytesByType).reduce((sum, bytes) => sum + bytes, 0);
    const weights = await Promise.all(views.map((view) => weigh(view)));
    const heaviest = Math.max(...weights);
    expect(Math.abs(told - heaviest) / heaviest).toBeLessThan(0.01);
  });

  async function see(view: (typeof views)[number]): Promise<Seen[]> {
    const context = await browser.newContext(contextFor(view));
    const page = await context.newPage();
    await page.goto(`${origin}/`, { waitUntil: 'load' });
    const seen = await page.evaluate(`[...document.images]
      .filter((image) => image.getClientRects().length > 0 && !/svg/.test(image.currentSrc))
      .map((image) => ({
        url: image.currentSrc,
        natural: { width: image.naturalWidth, height: image.naturalHeight },
        box: contentBox(image),
      }));
      function contentBox(image) {
        const { width, height } = image.getBoundingClientRect();
        const style = getComputedStyle(image);
        const sum = (...names) => names.reduce((all, one) => all + parseFloat(style[one]), 0);
        return {
          width: width - sum('paddingLeft', 'paddingRight', 'borderLeftWidth', 'borderRightWidth'),
          height: height - sum('paddingTop', 'paddingBottom', 'borderTopWidth', 'borderBottomWidth'),
        };
      }`);
    await context.close();
    return (seen as Omit<Seen, 'view'>[]).map((one) => ({ ...one, view: view.name }));
  }

  /** Bytes on the wire of a load with an empty cache, scrolled to its end. */
  async function weigh(view: (typeof views)[number]): Promise<number> {
    const context = await browser.newContext(contextFor(view));
    const page = await context.newPage();
    const cdp = await context.newCDPSession(page);
    let bytes = 0;
    cdp.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
    await cdp.send('Network.enable');
    await page.goto(`${origin}/`, { waitUntil: 'load' });
    await page.evaluate('scrollTo(0, document.documentElement.scrollHeight)');
    await page.waitForLoadState('networkidle');
    await context.close();
    return bytes;
  }
});

function keyOf({ view, url, natural, box }: Omit<Seen, 'natural'> & { natural: Size | null }) {
  const size = (one: Size | null) =>
    one ? `${Math.round(one.width)}×${Math.round(one.height)}` : '–';
  return `${view} ${new URL(url).pathname} ${size(natural)} in ${size(box)}`;
}
