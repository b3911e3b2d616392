// Pages a second of a survey, with scrolling and sweep, against a bare loop over the same pages in the
// same views that only waits for `load`. Both are run in turn, with as many pages at a time; only their
// ratio is claimed.
//
//   node bench/crawl.mjs [rounds] [pages] [tabs]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { median } from 'simple-statistics';
import { contextFor, launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { chooseViews, defaultPolicy, defaultViews, survey, Workspace } from '../dist/src/index.js';
import { serveBenchSite } from './site.mjs';

const rounds = Number(process.argv[2] ?? 3);
const pages = Number(process.argv[3] ?? 100);
const tabs = Number(process.argv[4] ?? 2);
const site = await serveBenchSite({ pages, images: 37, latency: 50 });
const views = chooseViews(defaultViews, ['phone', 'laptop']);
const bare = [];
const surveyed = [];
for (let round = 0; round < rounds; round++) {
  bare.push(await timed(loadAll));
  surveyed.push(await timed(surveyAll));
  console.log(
    `round ${round + 1}: bare ${rate(bare.at(-1))}, survey ${rate(surveyed.at(-1))} pages a second`,
  );
}
site.close();
const ratios = bare.map((time, round) => time / surveyed[round]);
console.log(
  `${pages} pages of 40 requests, 50 ms before every answer, ${views.length} views, ${tabs} at a time`,
);
console.log(`survey / bare loop, in pages a second: ${median(ratios).toFixed(2)}`);

function rate(time) {
  return ((pages / time) * 1000).toFixed(2);
}

async function timed(work) {
  const began = performance.now();
  const cleanUp = await work();
  const time = performance.now() - began;
  cleanUp?.();
  return time;
}

/** What the survey is held against: nothing but loading. */
async function loadAll() {
  const browser = await launchBrowser();
  const contexts = await Promise.all(views.map((view) => browser.newContext(contextFor(view))));
  const due = [...site.urls];
  const work = async () => {
    const open = await Promise.all(contexts.map((context) => context.newPage()));
    for (let url = due.shift(); url; url = due.shift())
      for (const page of open) await page.goto(url, { waitUntil: 'load' });
  };
  await Promise.all(Array.from({ length: tabs }, work));
  await browser.close();
}

/** @returns what removes the workspace, which is no part of a survey */
async function surveyAll() {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const workspace = Workspace.open(folder);
  const cleanUp = () => rmSync(folder, { recursive: true, force: true });
  try {
    const { pages: rows } = await survey(workspace, [site.urls[0]], {
      views,
      scope: { pages },
      tabs,
      policy: defaultPolicy,
      // Encoding is the work of `rank`, measured on its own.
      noEncodes: true,
    });
    const good = rows.filter(({ error }) => error === null).length;
    if (good !== pages) throw new Error(`${good} of ${pages} pages were measured`);
  } catch (error) {
    workspace.close();
    cleanUp();
    throw error;
  }
  workspace.close();
  return cleanUp;
}
