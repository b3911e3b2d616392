// What a sweep of all widths costs, against loading the page once, and against loading it anew at every
// width that was swept. All three are measured in turn in one run; only their ratios are claimed.
//
//   node bench/sweep.mjs [rounds]
import { once } from 'node:events';
import { createServer } from 'node:http';
import { median } from 'simple-statistics';
import sharp from 'sharp';
import { contextFor, launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { IsolatedWorld } from '../dist/src/browser/chromium/isolated-world.js';
import { sweep } from '../dist/src/browser/visit/sweep.js';

const rounds = Number(process.argv[2] ?? 7);
const latency = 50;
const images = 31;
const view = { width: 1366, height: 768, density: 1, touch: false };

const site = await serveBenchPage();
const browser = await launchBrowser();
const context = await browser.newContext(contextFor(view));
const results = { load: [], sweep: [], reload: [], widths: [] };
for (let round = -1; round < rounds; round++) {
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send('Network.enable');
  await cdp.send('Network.setCacheDisabled', { cacheDisabled: true });
  const load = await timed(() => page.goto(site.url, { waitUntil: 'load' }));
  const world = await IsolatedWorld.open(cdp);
  await world.call('placementsOf');
  const widths = countOrders(cdp);
  const swept = await timed(async () =>
    sweep(cdp, [world], view, true, await world.call('breakpointsOf')),
  );
  const count = widths();
  const reload = await timed(async () => {
    for (let index = 0; index < count; index++) {
      await page.setViewportSize({ width: 320 + Math.round((2240 * index) / count), height: 768 });
      await page.goto(site.url, { waitUntil: 'load' });
    }
  });
  await page.close();
  if (round < 0) continue; // the first round warms everything up
  results.load.push(load);
  results.sweep.push(swept);
  results.reload.push(reload);
  results.widths.push(count);
}
await browser.close();
site.close();

const line = (name, values) =>
  console.log(
    `${name.padEnd(34)} ${Math.round(median(values))} ms (${Math.round(Math.min(...values))}–${Math.round(Math.max(...values))})`,
  );
console.log(
  `${images} images, ${latency} ms before every answer, ${rounds} rounds, ${median(results.widths)} widths`,
);
line('one load', results.load);
line('one sweep', results.sweep);
line('a load at every width', results.reload);
const ratio = (one, other) => median(one.map((value, index) => value / other[index])).toFixed(2);
console.log(`sweep / one load: ${ratio(results.sweep, results.load)}`);
console.log(`a load at every width / sweep: ${ratio(results.reload, results.sweep)}`);

async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** Counts how often a session is told to change the viewport. */
function countOrders(cdp) {
  let count = 0;
  const send = cdp.send.bind(cdp);
  cdp.send = (method, ...rest) => {
    if (method === 'Emulation.setDeviceMetricsOverride') count++;
    return send(method, ...rest);
  };
  return () => count;
}

async function serveBenchPage() {
  const picture = await sharp({
    create: { width: 800, height: 600, channels: 3, background: '#17637a' },
  })
    .jpeg()
    .toBuffer();
  const figures = Array.from(
    { length: images },
    (_, index) => `<img src="/${index}.jpg" alt="">`,
  ).join('');
  const html = `<!doctype html><meta name="viewport" content="width=device-width"><style>
    main{max-width:1120px;margin:auto;display:grid;gap:16px;grid-template-columns:repeat(3,1fr)}
    img{width:100%;height:auto}@media(max-width:760px){main{grid-template-columns:1fr}}</style><main>${figures}</main>`;
  const server = createServer((request, response) => {
    setTimeout(() => {
      const isPage = request.url === '/';
      response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'image/jpeg' });
      response.end(isPage ? html : picture);
    }, latency);
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    url: `http://127.0.0.1:${server.address().port}/`,
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
