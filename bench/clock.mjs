// The load event as `clock` measures it, against the same load by a bare script that only reads the page's own
// timeline. Both are run in turn, each in a context of its own, when what was before has come to rest; only their
// ratio is claimed, with the interval in which it lies with 95 % confidence.
//
//   node bench/clock.mjs [loads]
import { setTimeout as after } from 'node:timers/promises';
import { median } from 'simple-statistics';
import { coldLoad, defaultColdLoadLimits } from '../dist/src/browser/load/cold-load.js';
import { contextFor, launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { medianDifference } from '../dist/src/core/load/bootstrap.js';
import { chooseViews, defaultViews } from '../dist/src/index.js';
import { serveBenchSite } from './site.mjs';

const loads = Number(process.argv[2] ?? 101);
const site = await serveBenchSite({ pages: 1, images: 37, latency: 50 });
const [view] = chooseViews(defaultViews, ['laptop']);
const browser = await launchBrowser();
const network = { name: 'none', latency: 0, down: 0, up: 0 };
const conditions = { network, cpuFactor: 1, view, browser: '', cache: 'cold' };
const limits = { ...defaultColdLoadLimits, rest: 0 };
const [bare, clocked] = [[], []];
await loadBare();
for (let load = 0; load < loads; load++) {
  // Which of the two goes first changes, so that neither always follows the other's garbage.
  const turns = [async () => bare.push(await loadBare()), async () => clocked.push(await clock())];
  for (const turn of load % 2 === 0 ? turns : turns.reverse()) {
    await after(500);
    await turn();
  }
}
await browser.close();
site.close();
console.log(`${loads} loads each of a page of 40 requests, 50 ms before every answer`);
console.log(
  `load event, bare: ${Math.round(median(bare))} ms, by clock: ${Math.round(median(clocked))} ms`,
);
const { interval } = medianDifference(bare, clocked);
const ratio = (difference) => (1 + difference / median(bare)).toFixed(3);
console.log(
  `clock / bare: ${ratio(median(clocked) - median(bare))} (${interval.map(ratio).join(' to ')})`,
);

async function loadBare() {
  const context = await browser.newContext(contextFor(view));
  const page = await context.newPage();
  await page.goto(site.urls[0], { waitUntil: 'load' });
  const load = await page.evaluate(
    () => performance.getEntriesByType('navigation')[0].loadEventEnd,
  );
  await context.close();
  return load;
}

async function clock() {
  const order = { url: site.urls[0], conditions, isThirdParty: () => false, limits };
  const [run] = await coldLoad(browser, order);
  if (run.failure !== null) throw new Error(run.failure);
  return run.markers.load;
}
