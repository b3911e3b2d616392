/* global document, Event, PerformanceObserver, requestAnimationFrame */
// Reports of made surveys: how long the program makes one, how large it is, and what a browser needs to open, sort,
// search and scroll it. Bounds are printed beside what was measured.
//
//   node bench/report.mjs [usual|lean]
//
// usual  300 pages, 3,000 images, with pictures: made in under 20 s, under 25 MB, opened in under 1 s
// lean   3,000 pages, 30,000 images, 10,000 slot families, without pictures: under 40 MB, opened in under 3 s
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { median } from 'simple-statistics';
import { launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { madeSurvey } from './made-survey.mjs';
import { runToEnd } from './run-to-end.mjs';

const orders = {
  usual: {
    pages: 300,
    perVisit: 10,
    files: 3_000,
    step: 10,
    families: 150,
    withPictures: true,
    opened: 1_000,
    made: 20,
    size: 25,
  },
  lean: {
    pages: 3_000,
    perVisit: 10,
    files: 30_000,
    step: 10,
    families: 1_000,
    opened: 3_000,
    made: null,
    size: 40,
  },
};
const openings = 5;
const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
const [chosen] = process.argv.slice(2);

for (const [name, order] of Object.entries(orders))
  if (!chosen || chosen === name) await measure(name, order);

async function measure(name, order) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const file = join(folder, 'report.html');
  try {
    await madeSurvey(folder, order);
    // What a survey finds out at its end: which files are one picture.
    await runToEnd([program, 'rank', '--workspace', folder, '--quiet']);
    const more = name === 'lean' ? ['--lean'] : [];
    const { seconds, megabytes } = await runToEnd([
      ...[program, 'report', '--workspace', folder, '--out', file, '--quiet'],
      ...more,
    ]);
    const size = statSync(file).size / 1e6;
    const bound = order.made === null ? '' : ` (bound ${order.made} s)`;
    console.log(
      `${name}: made in ${seconds.toFixed(1)} s${bound} with ${Math.round(megabytes)} MB`,
    );
    console.log(`  file ${size.toFixed(1)} MB (bound ${order.size} MB)`);
    const told = [];
    for (let time = 0; time < openings; time++) told.push(await openIt(pathToFileURL(file).href));
    const middle = (key) => Math.round(median(told.map((one) => one[key])));
    console.log(
      `  opened: first contentful paint ${middle('paint')} ms, its numbers ${middle('ready')} ms (bound ${order.opened} ms)`,
    );
    console.log(
      `  sorted ${middle('sort')} ms, searched ${middle('search')} ms (bound 50 ms), of ${told[0].rows} rows`,
    );
    console.log(`  longest task while scrolling ${middle('task')} ms (bound 50 ms)`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function openIt(address) {
  const browser = await launchBrowser();
  try {
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 } })
    ).newPage();
    await page.goto(address);
    await page.waitForSelector('main h1');
    const opened = await page.evaluate(() => ({
      paint: performance.getEntriesByName('first-contentful-paint')[0].startTime,
      ready: performance.now(),
    }));
    await page.click('nav a[href="#fixes"]');
    await page.waitForSelector('.row');
    await page.waitForTimeout(500);
    const rows = Number(await page.getAttribute('[role=table]', 'aria-rowcount')) - 1;
    const sort = await page.evaluate(taken, { selector: '.head .name button', value: null });
    const search = await page.evaluate(taken, {
      selector: 'input[type=search]',
      value: 'template-3',
    });
    await page.evaluate(taken, { selector: 'input[type=search]', value: '' });
    await page.waitForTimeout(300);
    return { ...opened, rows, sort, search, task: await page.evaluate(scrolled) };
  } finally {
    await browser.close();
  }
}

/** Milliseconds from a click, or from what is typed, until the page has been drawn again. */
async function taken({ selector, value }) {
  const element = document.querySelector(selector);
  const began = performance.now();
  if (value === null) element.click();
  else {
    element.value = value;
    element.dispatchEvent(new Event('input', { bubbles: true }));
  }
  // What is set in motion by an effect is done after the first frame.
  for (let frame = 0; frame < 2; frame++) await new Promise(requestAnimationFrame);
  const drawn = performance.now() - began;
  return drawn;
}

/** The longest task in milliseconds while the list is scrolled through; 0 if none was long. */
async function scrolled() {
  let longest = 0;
  const observer = new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) longest = Math.max(longest, duration);
  });
  observer.observe({ type: 'longtask' });
  const list = document.querySelector('.scroll');
  for (let step = 0; step < 120; step++) {
    list.scrollTop = (list.scrollHeight * step) / 120;
    await new Promise(requestAnimationFrame);
  }
  await new Promise((resolve) => setTimeout(resolve, 300));
  observer.disconnect();
  return longest;
}
