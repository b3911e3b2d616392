// What a change costs a crawl: the survey of another build of the program and that of this one, in turn, on the same pages,
// on demand with the style sheet of a template that npm ships. Only the ratio of their times is claimed.
//
//   node bench/crawl-before.mjs DIST [rounds] [pages] [tabs] [template]
//
// DIST is the folder dist/ of the other build.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { median } from 'simple-statistics';
import * as now from '../dist/src/index.js';
import { serveBenchSite } from './site.mjs';

const [dist, rounds = 5, pages = 40, tabs = 2, template] = process.argv.slice(2);
if (!dist) throw new Error('name the folder dist of the other build');
const before = await import(pathToFileURL(join(resolve(dist), 'src', 'index.js')).href);
const site = await serveBenchSite({
  pages: Number(pages),
  images: 37,
  latency: 50,
  template: template === 'template',
});
const ratios = [];
for (let round = 0; round < Number(rounds); round++) {
  const inTurn = round % 2 === 0 ? [before, now] : [now, before];
  const times = new Map();
  for (const build of inTurn) times.set(build, await timed(build));
  ratios.push(times.get(now) / times.get(before));
  const [a, b] = [times.get(before), times.get(now)].map((time) => `${(time / 1000).toFixed(1)} s`);
  console.log(`round ${round + 1}: before ${a}, now ${b}`);
}
site.close();
console.log(`${pages} pages of 40 requests, 50 ms before every answer, 2 views, ${tabs} at a time`);
console.log(`time of the survey now / before: ${median(ratios).toFixed(2)}`);

async function timed({ Workspace, chooseViews, defaultPolicy, defaultViews, survey }) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const workspace = Workspace.open(folder);
  const began = performance.now();
  try {
    const { pages: rows } = await survey(workspace, [site.urls[0]], {
      views: chooseViews(defaultViews, ['phone', 'laptop']),
      scope: { pages: Number(pages) },
      tabs: Number(tabs),
      policy: defaultPolicy,
      noEncodes: true,
      // Pictures of first screens are for reports, and have a cost of their own.
      noPictures: true,
    });
    if (rows.some(({ error }) => error !== null)) throw new Error('a page was not measured');
    return performance.now() - began;
  } finally {
    workspace.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
