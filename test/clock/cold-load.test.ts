import { readFileSync, readdirSync } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { coldLoad, defaultColdLoadLimits } from '../../dist/src/browser/load/cold-load.js';
import { launchBrowser } from '../../src/browser/chromium/launch.js';
import { unshaped } from '../../src/core/visitors/network.js';
import type { Run } from '../../src/core/load/session.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answers } from '../support/server.js';

const view = { name: 'laptop', width: 1280, height: 800, density: 1, touch: false };
const script = 'text/javascript';

let browser: Browser;
let port = '';

beforeAll(async () => {
  browser = await launchBrowser();
});
afterAll(() => browser.close());

/** Loads the page `/` of a site that two hosts serve, each its own site to the browser. */
async function load(answers: Answers, network = unshaped): Promise<Run> {
  const { address } = await serve(answers);
  port = address.split(':')[1]!;
  const conditions = { network, cpuFactor: 1, view, browser: '', cache: 'cold' } as const;
  const limits = { ...defaultColdLoadLimits, rest: 0 };
  const isThirdParty = (url: string) => new URL(url).hostname !== '127.0.0.1';
  const [run] = await coldLoad(browser, {
    url: `http://${address}/`,
    conditions,
    isThirdParty,
    limits,
  });
  return run;
}

const stranger = (path: string) => `http://stranger.localhost:${port}${path}`;

function find({ requests }: Run, path: string) {
  const found = requests.filter(({ url }) => new URL(url).pathname === path);
  expect(found.map(({ url }) => url)).toHaveLength(1);
  return found[0]!;
}

describe('a cold load', () => {
  it('tells what frames of other sites and workers ask for, each request once', async () => {
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const run = await load({
      '/': (request) => ({
        body: `<!doctype html><img src="/own.jpg"><iframe src="http://stranger.localhost:${request.headers.host!.split(':')[1]}/frame"></iframe>
          <script>new Worker('/worker.js')</script>`,
      }),
      '/own.jpg': { type: 'image/jpeg', body: picture },
      '/frame': {
        body: '<!doctype html><link rel="stylesheet" href="/frame.css"><img src="/frame.jpg"><img src="/moved.jpg">',
      },
      '/frame.css': { type: 'text/css', body: 'p{color:red}', wait: 150 },
      '/frame.jpg': { type: 'image/jpeg', body: picture, wait: 100 },
      '/moved.jpg': { location: '/there.jpg' },
      '/there.jpg': { type: 'image/jpeg', body: picture },
      '/worker.js': { type: script, body: "fetch('/asked.json')" },
      '/asked.json': { type: 'application/json', body: '{}' },
      '/favicon.ico': { status: 204 },
    });
    expect(run.failure).toBeNull();
    expect(run.requests.filter(({ end }) => end === null).map(({ url }) => url)).toEqual([]);
    expect(run.markers.quiet).toBe(run.markers.lastByte);
    expect(find(run, '/own.jpg')).toMatchObject({ type: 'image', thirdParty: false, used: true });
    const frame = find(run, '/frame');
    const style = find(run, '/frame.css');
    expect(style).toMatchObject({
      url: stranger('/frame.css'),
      type: 'style',
      status: 200,
      thirdParty: true,
      protocol: 'http/1.1',
      priority: 'VeryHigh',
      initiatedBy: { url: stranger('/frame'), line: 1 },
    });
    expect(style.start).toBeGreaterThanOrEqual(frame.start);
    expect(style.phases.wait).toBeGreaterThan(140);
    expect(style.end! - style.start).toBeGreaterThan(140);
    const shown = find(run, '/frame.jpg');
    expect(shown).toMatchObject({ type: 'image', mediaType: 'image/jpeg', failure: null });
    expect(shown.transferBytes).toBeGreaterThan(picture.length);
    expect(find(run, '/moved.jpg')).toMatchObject({
      status: 302,
      redirectsTo: stranger('/there.jpg'),
    });
    expect(find(run, '/there.jpg')).toMatchObject({ status: 200, initiator: 'redirect' });
    expect(find(run, '/worker.js')).toMatchObject({ type: 'script' });
    expect(find(run, '/asked.json')).toMatchObject({ type: 'other', status: 200 });
  });

  it('has one line for all: frames of other sites and workers wait as long as the page', async () => {
    const frame = (request: IncomingMessage, path: string) =>
      `<iframe src="http://stranger.localhost:${request.headers.host!.split(':')[1]}${path}"></iframe>`;
    const run = await load(
      {
        '/': (request) => ({
          body: `<!doctype html><link rel="icon" href="data:,">${frame(request, '/frame')}
            <script>new Worker('/worker.js')</script>`,
        }),
        '/frame': {
          body: "<!doctype html><script src='/frame.js'></script><script>new Worker('/inner.js')</script>",
        },
        '/frame.js': { type: script, body: '' },
        '/worker.js': { type: script, body: "fetch('/asked.json')" },
        '/inner.js': { type: script, body: "fetch('/inner.json')" },
        '/asked.json': { type: 'application/json', body: '{}' },
        '/inner.json': { type: 'application/json', body: '{}' },
      },
      { name: 'far', latency: 400, down: 0, up: 0 },
    );
    expect(run.failure).toBeNull();
    for (const path of ['/', '/frame', '/frame.js', '/asked.json', '/inner.json']) {
      const { phases, end } = find(run, path);
      expect([path, phases.wait > 390, end]).toEqual([path, true, expect.any(Number)]);
    }
  });

  it('does not wait for what a frame had asked for that was taken away', async () => {
    const run = await load({
      '/': (request) => ({
        body: `<!doctype html><link rel="icon" href="data:,">
          <iframe src="http://stranger.localhost:${request.headers.host!.split(':')[1]}/frame"></iframe>
          <script>addEventListener('message', () => document.querySelector('iframe').remove())</script>`,
      }),
      '/frame': {
        body: `<!doctype html><script>
          fetch('/never.json'); setTimeout(() => parent.postMessage('enough', '*'), 200);</script>`,
      },
      '/never.json': { type: 'application/json', body: '{}', wait: 60_000 },
    });
    const given = find(run, '/never.json');
    expect(given.failure).toBe('canceled');
    expect(given.end).toBeGreaterThanOrEqual(given.start);
    expect(run.markers.quiet).not.toBeNull();
  });

  it('says where a page leads that is left before it has loaded', async () => {
    const run = await load({
      '/': { body: "<script>location = '/programme'</script><img src='/slow.jpg'>" },
      '/slow.jpg': { type: 'image/jpeg', wait: 3_000 },
      '/programme': { body: 'kites' },
    });
    expect(run.failure).toMatch(/^redirects by script before it has loaded: http:.*\/programme$/);
    expect(run.markers.load).toBeNull();
  });

  it('says of what is no page what it is', async () => {
    const file = await load({
      '/': {
        type: 'application/zip',
        body: 'kites',
        headers: { 'content-disposition': 'attachment; filename="kites.zip"' },
      },
    });
    expect(file.failure).toBe('is a download');
    const locked = await load({
      '/': { status: 401, body: 'no', headers: { 'www-authenticate': 'Basic realm="kites"' } },
    });
    expect(locked.failure).toBe('returned 401');
    const nothing = await load({ '/': { hangUp: true } });
    expect(nothing.failure).toBe('the server closed the connection without a response');
  });

  it('goes on where a page asks its visitor something, prints itself or serves itself', async () => {
    const run = await load({
      '/': {
        body: `<!doctype html><link rel="icon" href="data:,"><h1>Kites</h1><script>
          alert('kites'); confirm('kites'); prompt('kites'); print();
          navigator.serviceWorker.register('/own-server.js').catch(() => fetch('/refused.json'));
          window.onbeforeunload = () => 'stay';</script>`,
      },
      '/own-server.js': { type: script, body: '' },
      '/refused.json': { type: 'application/json', body: '{}' },
    });
    expect(run.failure).toBeNull();
    expect(find(run, '/refused.json').status).toBe(200);
    expect(run.requests.map(({ url }) => new URL(url).pathname)).not.toContain('/own-server.js');
  });

  it('tells what asked for a request down to the line, and which pictures are shown', async () => {
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const image = { type: 'image/jpeg', body: picture };
    const run = await load({
      '/': {
        body: [
          '<!doctype html><link rel="stylesheet" href="/page.css">',
          '<link rel="preload" as="image" href="/spare.jpg">',
          '<link rel="preload" as="image" href="/early.jpg">',
          '<div class="hero"></div><img src="/plain.jpg"><img src="/early.jpg">',
          '<img src="/hidden.jpg" hidden>',
          '<script src="/page.js"></script>',
        ].join('\n'),
      },
      '/late.json': { type: 'application/json', body: '{}' },
      '/page.css': { type: 'text/css', body: '.hero{height:40px;background:url(/behind.jpg)}' },
      '/page.js': {
        type: script,
        body: "\n\nconst ask = () =>\n  fetch('/late.json');\nask();",
      },
      ...Object.fromEntries(
        ['spare', 'early', 'plain', 'hidden', 'behind'].map((name) => [`/${name}.jpg`, image]),
      ),
    });
    const page = run.finalUrl;
    expect(find(run, '/plain.jpg')).toMatchObject({
      initiator: 'parser',
      initiatedBy: { url: page, line: 4 },
      used: true,
    });
    expect(find(run, '/early.jpg')).toMatchObject({ initiator: 'preload', used: true });
    expect(find(run, '/spare.jpg')).toMatchObject({ initiator: 'preload', used: false });
    expect(find(run, '/hidden.jpg')).toMatchObject({ used: false });
    expect(find(run, '/behind.jpg')).toMatchObject({
      initiator: 'style',
      initiatedBy: { url: `${page}page.css` },
      used: true,
    });
    expect(find(run, '/late.json')).toMatchObject({
      initiator: 'script',
      initiatedBy: { url: `${page}page.js`, line: 4 },
      used: null,
    });
    expect(find(run, '/page.js')).toMatchObject({ used: true });
    expect(find(run, '/page.css')).toMatchObject({ used: true });
    // Pictures in the first screen are asked for with less haste than they are given later.
    const plain = find(run, '/plain.jpg');
    expect(plain.firstPriority).not.toBe('');
    expect(plain.priority).not.toBe('');
  });

  it('tells what came of style sheets, fonts, scripts and what was redirected', async () => {
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const font = { type: 'font/ttf', body: anyFont(), headers: { 'cache-control': 'max-age=60' } };
    const run = await load({
      '/': {
        body: `<!doctype html><link rel="icon" href="data:,">
          <link rel="stylesheet" href="/used.css"><link rel="stylesheet" href="/unused.css">
          <link rel="stylesheet" href="/print.css" media="print">
          <link rel="preload" as="font" type="font/ttf" href="/spare.ttf" crossorigin>
          <link rel="preload" as="script" href="/spare.js">
          <p class="shown">Kites</p><img src="/moved.jpg" width="60" height="40">
          <script src="/run.js"></script><script src="/broken.js"></script>`,
      },
      '/used.css': {
        type: 'text/css',
        body: `@import url(/imported.css); .none:hover { color: red }
          @font-face { font-family: Kite; src: url("/drawn.ttf") }`,
      },
      '/imported.css': {
        type: 'text/css',
        body: '@media (min-width: 300px) { p.shown::first-line, p::before { font-family: Kite } }',
      },
      '/unused.css': {
        type: 'text/css',
        body: '.nobody { color: red } @media (max-width: 300px) { p { color: red } }',
      },
      '/print.css': { type: 'text/css', body: 'p { color: black }' },
      '/run.js': { type: script, body: 'window.ran = 1;' },
      '/broken.js': { type: script, body: 'this is no script' },
      '/spare.js': { type: script, body: 'window.spare = 1;' },
      '/drawn.ttf': font,
      '/spare.ttf': font,
      '/moved.jpg': { location: '/there.jpg' },
      '/there.jpg': { type: 'image/jpeg', body: picture },
    });
    const uses = run.requests.map(({ url, used }) => [new URL(url).pathname, used]);
    expect(Object.fromEntries(uses)).toEqual({
      '/': null,
      '/used.css': true,
      '/imported.css': true,
      '/unused.css': false,
      '/print.css': false,
      '/run.js': true,
      '/broken.js': false,
      '/spare.js': false,
      '/drawn.ttf': true,
      '/spare.ttf': false,
      '/moved.jpg': null,
      '/there.jpg': true,
    });
  });
});

/** Any font file: which letters it has does not matter. */
function anyFont(): Buffer {
  const folder = new URL('../../node_modules/playwright-core/', import.meta.url);
  const name = readdirSync(folder, { recursive: true, encoding: 'utf8' }).find((one) =>
    one.endsWith('.ttf'),
  )!;
  return readFileSync(new URL(name, folder));
}
