// What it takes to survey the demo's site again when one page has changed: a full survey, and one of what has changed, in turn,
// with every encode known from a first one. Only the ratio of their times is claimed.
//
//   node bench/changed-since.mjs [rounds]
import { mkdtempSync, rmSync } from 'node:fs';
import { homedir, tmpdir } from 'node:os';
import { join } from 'node:path';
import { median } from 'simple-statistics';
import { drawPictures } from '../dist/demo/pictures/draw.js';
import { serveDemo } from '../dist/demo/server.js';
import {
  Workspace,
  chooseViews,
  defaultPolicy,
  defaultViews,
  survey,
  surveyChanged,
} from '../dist/src/index.js';

const rounds = Number(process.argv[2] ?? 5);
const pictures = await drawPictures(join(homedir(), '.cache', 'zealous-lynx'));
let version = 0;
/** The site as it is, but for the text of one page. */
const edited = {
  page: (url, html) =>
    url.endsWith('/journal/') ? html.replace('</main>', `<p>${version}</p></main>`) : html,
  text: (text) => text,
  file: () => undefined,
  isCompressed: () => false,
};
const site = await serveDemo(pictures, 0, edited);
const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const workspace = Workspace.open(folder);
const common = { hosts: site.hosts, policy: defaultPolicy, tabs: 2 };
const full = (label) =>
  survey(workspace, [site.start], {
    ...common,
    views: chooseViews(defaultViews, ['phone', 'laptop']),
    scope: { pages: 50 },
    label,
  });
await full('first');
const ratios = [];
for (let round = 1; round <= rounds; round++) {
  version = round;
  const changed = await timed(() => surveyChanged(workspace, { ...common, since: 'first' }));
  const { takenOver } = changed.result;
  if (takenOver.changed.length !== 1) throw new Error(JSON.stringify(takenOver));
  const whole = await timed(() => full(`full-${round}`));
  ratios.push(changed.time / whole.time);
  console.log(
    `round ${round}: ${(changed.time / 1000).toFixed(1)} s for one page of ${whole.result.pages.length}, all of them ${(whole.time / 1000).toFixed(1)} s`,
  );
}
workspace.close();
await site.close();
rmSync(folder, { recursive: true, force: true });
console.log(`time of the changed page / of a full survey: ${median(ratios).toFixed(2)}`);

async function timed(work) {
  const began = performance.now();
  const result = await work();
  return { result, time: performance.now() - began };
}
