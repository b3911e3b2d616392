// Memory of the Node process while a survey grows: many small pages, with the resident size sampled as
// the crawl goes on. What is claimed: its peak, and that the second half of the pages needs no more than
// the first.
//
//   node bench/memory.mjs [pages] [tabs]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chooseViews, defaultPolicy, defaultViews, survey, Workspace } from '../dist/src/index.js';
import { serveBenchSite } from './site.mjs';

const pages = Number(process.argv[2] ?? 3_000);
const tabs = Number(process.argv[3] ?? 4);

if (process.send) await surveyAlone(process.argv[4]);
else await measure();

/** The survey runs in a process of its own: the site's server must not be counted. */
async function measure() {
  const site = await serveBenchSite({ pages, images: 3, latency: 0 });
  const child = fork(fileURLToPath(import.meta.url), [pages, tabs, site.urls[0]]);
  const samples = [];
  child.on('message', (sample) => {
    samples.push(sample);
    if (sample.done % 100 === 0)
      console.log(`${sample.done} pages: ${Math.round(sample.rss / 1e6)} MB`);
  });
  const [status] = await once(child, 'exit');
  site.close();
  if (status !== 0) process.exit(status);
  const peak = (from, to) =>
    Math.max(...samples.filter(({ done }) => done >= from && done <= to).map(({ rss }) => rss));
  const [first, second] = [peak(pages / 10, pages / 2), peak(pages / 2, pages)];
  console.log(`${samples.at(-1).done} pages of 3 images, one view with sweep, ${tabs} at a time`);
  console.log(`peak of the Node process: ${Math.round(peak(0, pages) / 1e6)} MB`);
  console.log(`second half / first half: ${(second / first).toFixed(2)}`);
}

async function surveyAlone(start) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const workspace = Workspace.open(folder);
  let told = -1;
  await survey(workspace, [start], {
    views: chooseViews(defaultViews, ['laptop']),
    scope: { pages },
    tabs,
    policy: defaultPolicy,
    noEncodes: true,
    onProgress: ({ done }) => {
      if (done % 10 !== 0 || done === told) return;
      told = done;
      process.send({ done, rss: process.memoryUsage().rss });
    },
  });
  process.send({ done: pages, rss: process.memoryUsage().rss });
  workspace.close();
  rmSync(folder, { recursive: true, force: true });
  process.disconnect();
}
