// A page against itself: real loads in two sessions, one after the other as before and after would be, compared again
// and again. A comparison with a 95 % interval may claim a difference about once in twenty.
//
//   node bench/self-compare.mjs [comparisons] [loads a side]
import { coldLoad, defaultColdLoadLimits } from '../dist/src/browser/load/cold-load.js';
import { launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { compareSessions } from '../dist/src/core/load/comparison.js';
import { serveBenchSite } from './site.mjs';

const comparisons = Number(process.argv[2] ?? 40);
const loads = Number(process.argv[3] ?? 5);
const site = await serveBenchSite({ pages: 1, images: 12, latency: 50 });
const browser = await launchBrowser();
const conditions = {
  network: { name: 'none', latency: 0, down: 0, up: 0 },
  cpuFactor: 1,
  view: { name: 'laptop', width: 1366, height: 768, density: 1, touch: false },
  browser: '',
  cache: 'cold',
};
const order = {
  url: site.urls[0],
  conditions,
  isThirdParty: () => false,
  limits: { ...defaultColdLoadLimits, rest: 0, quietWindow: 100 },
};
const markers = ['ttfb', 'firstContentfulPaint', 'largestContentfulPaint', 'load', 'lastByte'];
const claims = Object.fromEntries([...markers, 'bytes', 'requestCount'].map((name) => [name, 0]));

const session = async () => {
  const runs = [];
  while (runs.length < loads) runs.push((await coldLoad(browser, order))[0]);
  return { id: 0, label: '', page: order.url, startedAt: '', conditions, runs };
};

await session();
for (let turn = 0; turn < comparisons; turn++) {
  const before = await session();
  const comparison = compareSessions(before, await session());
  const claimed = ({ verdict }) => Number(verdict === 'less' || verdict === 'more');
  for (const name of markers) claims[name] += claimed(comparison.markers[name]);
  for (const name of ['bytes', 'requestCount']) claims[name] += claimed(comparison[name]);
}
await browser.close();
site.close();
console.log(
  `${comparisons} comparisons of a page with itself, ${loads} loads a side: differences claimed`,
);
for (const [name, count] of Object.entries(claims))
  console.log(`${name.padEnd(24)} ${count} (${((count / comparisons) * 100).toFixed(1)} %)`);
