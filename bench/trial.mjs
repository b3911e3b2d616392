// How far a replay is from the page that it was recorded from, whether a trial of nothing claims something, and what a
// trial takes beside the loads that it is made of. Both sides alternate in one run; medians are compared.
//
//   node bench/trial.mjs [replay|nothing|time|predict|deployed] [rounds]
//
// predict  the change that a simulation predicts for a fix of bytes against the change that a trial measures, of largest
//          contentful paint and load: within 15 % or 50 ms on seven of nine pages
// deployed the change that a trial of the demo's refit measures against that of its deployment: each inside the other's 95 %
//          interval, or within 10 % of it
// replay   load, first and largest contentful paint of a replay without a fix against the live page: within 10 % or 30 ms
// nothing  trials without a fix: of 20, at most one may claim a difference of a marker
// time     a trial with five loads of each side against ten bare loads of the page: at most 1.3 times as long
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { median } from 'simple-statistics';
import { readDeployment } from '../dist/demo/deploy.js';
import { drawPictures } from '../dist/demo/pictures/draw.js';
import { serveDemo } from '../dist/demo/server.js';
import { launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { Reach } from '../dist/src/reach/reach.js';
import { coldLoad, defaultColdLoadLimits } from '../dist/src/browser/load/cold-load.js';
import { builtInNetworks } from '../dist/src/core/visitors/network.js';
import { medianDifference } from '../dist/src/core/load/bootstrap.js';
import { chooseViews, defaultViews } from '../dist/src/core/visitors/view.js';
import { Workspace } from '../dist/src/store/workspace.js';
import { clock } from '../dist/src/tasks/clock/clock.js';
import { defaultPolicy } from '../dist/src/core/policy/policy.js';
import { refit } from '../dist/src/tasks/refit/refit.js';
import { survey } from '../dist/src/tasks/survey/survey.js';
import { trial } from '../dist/src/tasks/trial/trial.js';
import { serveBoundPages } from './bound-pages.mjs';

const parts = { replay, nothing, time, predict, deployed };
const [part = 'all', given] = process.argv.slice(2);
const network = builtInNetworks.find(({ name }) => name === 'fast-mobile');
const [view] = defaultViews;
const creator = { name: 'bench', version: '0' };
const told = ['firstContentfulPaint', 'largestContentfulPaint', 'load'];

const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const pictures = await drawPictures(join(tmpdir(), 'lynx-bench-pictures'), () => {});
const site = await serveDemo(pictures);
const workspace = Workspace.open(join(folder, 'workspace'));
const addressOf = (path) => new URL(path, site.start).href;
const common = { creator, network, view, cpuFactor: 1, hosts: site.hosts, noInteractive: true };
const untouched = {
  fixes: ['none'],
  without: [],
  withoutHosts: [],
  each: false,
  warm: false,
  film: false,
};
const tryNothing = async (page, runs) => {
  const { pages } = await trial(workspace, [page], {
    ...common,
    ...untouched,
    runs,
    mostRuns: runs,
  });
  return pages[0];
};
try {
  for (const [name, run] of Object.entries(parts)) if (part === 'all' || part === name) await run();
} finally {
  workspace.close();
  await site.close();
  rmSync(folder, { recursive: true, force: true });
}

async function replay(rounds = Number(given ?? 4)) {
  for (const path of ['/', '/journal/', '/makers/']) {
    const page = addressOf(path);
    const [live, replayed] = [new Map(), new Map()];
    for (let round = 0; round < rounds; round++) {
      const { results } = await clock(workspace, [page], { ...common, runs: 2 });
      const tried = await tryNothing(page, 2);
      for (const name of told) {
        add(live, name, ...results[0].session.runs.map(({ markers }) => markers[name]));
        add(replayed, name, ...tried.before.runs.map(({ markers }) => markers[name]));
      }
    }
    for (const name of told) {
      const [was, is] = [median(live.get(name)), median(replayed.get(name))];
      const off = Math.abs(is - was);
      const holds = off <= Math.max(30, was * 0.1);
      console.log(
        `${path} ${name}: live ${was.toFixed(0)} ms, replayed ${is.toFixed(0)} ms, ratio ${(is / was).toFixed(3)} ${holds ? 'holds' : 'DOES NOT HOLD'}`,
      );
    }
  }
}

async function nothing(rounds = Number(given ?? 20)) {
  let claims = 0;
  for (let round = 0; round < rounds; round++) {
    const { comparison } = await tryNothing(addressOf('/programme/'), 5);
    const claimed = told.filter((name) =>
      ['less', 'more'].includes(comparison.markers[name].verdict),
    );
    if (claimed.length > 0) claims++;
    console.log(`trial ${round + 1} without a fix: ${claimed.join(', ') || 'no difference'}`);
  }
  console.log(`${claims} of ${rounds} trials without a fix claim a difference`);
}

async function time(rounds = Number(given ?? 3)) {
  const page = addressOf('/makers/');
  const [bare, whole] = [[], []];
  for (let round = 0; round < rounds; round++) {
    let began = performance.now();
    const browser = await launchBrowser(Reach.open(site.hosts), { latency: network.latency });
    const { name, width, height, density, touch } = view;
    const conditions = { network, cpuFactor: 1, view: { name, width, height, density, touch } };
    for (let load = 0; load < 10; load++)
      await coldLoad(browser, {
        ...{ url: page, conditions, isThirdParty: () => false },
        limits: { ...defaultColdLoadLimits, rest: 0 },
      });
    await browser.close();
    bare.push(performance.now() - began);
    began = performance.now();
    await tryNothing(page, 5);
    whole.push(performance.now() - began);
  }
  const [was, is] = [median(bare), median(whole)];
  console.log(
    `trial ${(is / 1000).toFixed(1)} s, ten bare loads ${(was / 1000).toFixed(1)} s, ratio ${(is / was).toFixed(2)} (bound 1.3)`,
  );
}

/** The demo's pages with the files of its refit, and pages that are bound by one thing each. */
async function predict(runs = Number(given ?? 4)) {
  await survey(workspace, [site.start], {
    ...{ views: defaultViews.slice(0, 1), policy: defaultPolicy, scope: { pages: 50 }, tabs: 2 },
    hosts: site.hosts,
  });
  const out = join(folder, 'refit');
  await refit(workspace, undefined, out, defaultPolicy);
  const bound = await serveBoundPages();
  const paths = ['/', '/journal/', '/gallery/', '/programme/', '/makers/'];
  const cases = [
    ...paths.map((path) => ({ page: addressOf(path), fix: 'images', more: { refit: out } })),
    ...bound.pages.map(({ page, fix }) => ({
      ...{ page, fix },
      more: {
        hosts: bound.hosts,
        ...(fix === 'without-hosts' && { withoutHosts: [bound.slowHost] }),
      },
    })),
  ];
  let held = 0;
  for (const { page, fix, more } of cases) {
    const { pages } = await trial(workspace, [page], {
      ...{ ...common, ...untouched, fixes: [fix], runs, mostRuns: runs },
      ...more,
    });
    const [{ comparison, fixes }] = pages;
    const told = ['largestContentfulPaint', 'load'].map((name) => {
      const measured = comparison.markers[name].difference;
      const predicted = fixes[0].predicted[name];
      const holds = Math.abs(predicted - measured) <= Math.max(50, Math.abs(measured) * 0.15);
      return {
        holds,
        words: `${name} measured ${measured.toFixed(0)} ms, predicted ${predicted.toFixed(0)} ms`,
      };
    });
    const holds = told.every((one) => one.holds);
    if (holds) held++;
    console.log(
      `${page} ${fix}: ${told.map(({ words }) => words).join('; ')} ${holds ? 'holds' : 'DOES NOT HOLD'}`,
    );
  }
  console.log(`${held} of ${cases.length} pages hold`);
  await bound.close();
}

async function deployed(rounds = Number(given ?? 6)) {
  await survey(workspace, [site.start], {
    ...{ views: chooseViews(defaultViews, ['phone', 'laptop']), policy: defaultPolicy },
    ...{ scope: { pages: 50 }, tabs: 2, hosts: site.hosts },
  });
  const out = join(folder, 'refit');
  const reach = await Reach.of({ starts: [site.start], hosts: site.hosts });
  const pages = { reach: () => Promise.resolve(reach), accesses: [] };
  await refit(workspace, undefined, out, defaultPolicy, { pages });
  const after = await serveDemo(pictures, 0, await readDeployment(out, site.start));
  const sides = { tried: [new Map(), new Map()], live: [new Map(), new Map()] };
  const load = async ({ hosts }) => {
    const { results } = await clock(workspace, [site.start], { ...common, hosts, runs: 2 });
    return results[0].session;
  };
  try {
    for (let round = 0; round < rounds; round++) {
      const first = await load(site);
      const tried = await trial(workspace, [site.start], {
        ...{ ...common, ...untouched, fixes: [], refit: out, runs: 2, mostRuns: 2 },
      });
      const second = await load(after);
      for (const name of told) {
        const valuesOf = ({ runs }) => runs.map(({ markers }) => markers[name]);
        add(sides.tried[0], name, ...valuesOf(tried.pages[0].before));
        add(sides.tried[1], name, ...valuesOf(tried.pages[0].after));
        add(sides.live[0], name, ...valuesOf(first));
        add(sides.live[1], name, ...valuesOf(second));
      }
    }
  } finally {
    await after.close();
  }
  for (const name of told) {
    const changeOf = ([was, is]) => medianDifference(was.get(name), is.get(name));
    const [tried, live] = [changeOf(sides.tried), changeOf(sides.live)];
    const isWithin = (value, { interval: [low, high] }) => value >= low && value <= high;
    const holds =
      (isWithin(tried.difference, live) && isWithin(live.difference, tried)) ||
      Math.abs(tried.difference - live.difference) <= 0.1 * Math.abs(live.difference);
    const words = ({ difference, interval: [low, high] }) =>
      `${difference.toFixed(0)} ms (${low.toFixed(0)} to ${high.toFixed(0)})`;
    console.log(
      `${name}: tried ${words(tried)}, deployed ${words(live)} ${holds ? 'holds' : 'DOES NOT HOLD'}`,
    );
  }
}

function add(lists, name, ...values) {
  lists.set(name, [...(lists.get(name) ?? []), ...values]);
}
