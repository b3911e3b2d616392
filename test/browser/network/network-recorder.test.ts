import type { Browser, BrowserContext } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launchBrowser } from '../../../src/browser/chromium/launch.js';
import { NetworkRecorder } from '../../../src/browser/network/network-recorder.js';
import { toPageRequest } from '../../../src/browser/network/recorded-request.js';
import type { PageRequest } from '../../../src/core/load/request.js';
import { photograph } from '../../support/pictures.js';
import { serve } from '../../support/server.js';
import type { Answer } from '../../support/server.js';

let browser: Browser;
let context: BrowserContext;

beforeAll(async () => {
  browser = await launchBrowser();
  context = await browser.newContext({
    extraHTTPHeaders: { authorization: 'Bearer kite-secret', 'x-plain': 'seen' },
  });
});
afterAll(() => browser.close());

async function record(answers: Readonly<Record<string, Answer>>): Promise<PageRequest[]> {
  const { origin } = await serve(answers);
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  const recorder = await NetworkRecorder.attach(cdp);
  await page.goto(`${origin}/`, { waitUntil: 'networkidle' });
  const zero = recorder.recorded[0]!.start;
  const requests = recorder.recorded.map((request) => toPageRequest(request, zero, false));
  await page.close();
  return requests;
}

describe('the network recorder', () => {
  it('tells types, redirects, failures, initiators and what blocks rendering', async () => {
    const requests = await record({
      '/': { location: '/home' },
      '/home': {
        body: `<!doctype html><link rel="stylesheet" href="/s.css"><link rel="preload" as="image" href="/p.jpg">
          <script src="/j.js"></script><img src="/p.jpg"><img src="/gone.png">
          <script>fetch('/data.json'); fetch('http://127.0.0.1:9/').catch(() => {})</script>`,
      },
      '/s.css': { type: 'text/css', body: 'p{color:red}' },
      '/j.js': { type: 'text/javascript', body: '0' },
      '/p.jpg': { type: 'image/jpeg', body: await photograph(40, 40).jpeg().toBuffer() },
      '/data.json': { type: 'application/json', body: '{}' },
    });
    const one = (end: string) => requests.find(({ url }) => url.endsWith(end))!;
    expect(requests[0]).toMatchObject({ status: 302, type: 'html', initiator: 'other' });
    expect(requests[0]!.redirectsTo).toBe(one('/home').url);
    expect(one('/home')).toMatchObject({ status: 200, initiator: 'redirect', type: 'html' });
    expect(one('/s.css')).toMatchObject({
      type: 'style',
      renderBlocking: true,
      initiator: 'parser',
    });
    expect(one('/j.js')).toMatchObject({ type: 'script', renderBlocking: true });
    expect(one('/p.jpg')).toMatchObject({ type: 'image', renderBlocking: false, failure: null });
    expect(one('/gone.png')).toMatchObject({ status: 404 });
    expect(one('/data.json')).toMatchObject({ type: 'other', initiator: 'script' });
    expect(one('127.0.0.1:9/')).toMatchObject({ status: 0 });
    expect(one('127.0.0.1:9/').failure).toMatch(/^net::ERR_/);
    expect(requests.filter(({ url }) => url.endsWith('/p.jpg'))).toHaveLength(1);
    for (const { end, start } of requests) expect(end).toBeGreaterThanOrEqual(start);
  });

  it('never keeps what a secret header says', async () => {
    const requests = await record({ '/': { body: '<!doctype html><p>x' } });
    expect(JSON.stringify(requests)).not.toContain('kite-secret');
    const headers = requests[0]!.requestHeaders;
    expect(headers).toContainEqual({ name: 'authorization', value: '(redacted)' });
    expect(headers).toContainEqual({ name: 'x-plain', value: 'seen' });
  });

  it('counts bytes on the wire with headers, and bytes of the body without', async () => {
    const body = `<!doctype html><p>${'kites '.repeat(500)}`;
    const [request] = await record({ '/': { body } });
    expect(request!.bodyBytes).toBe(body.length);
    expect(request!.transferBytes).toBeGreaterThan(body.length + 50);
    expect(request!.transferBytes).toBeLessThan(body.length + 500);
  });
});
