// What the first answer is held against: a page loaded and scrolled through in every view, with nothing measured.
//
//   node bench/bare-loop.mjs ADDRESS [HOST=ADDRESS …]
import { chromium } from 'playwright-core';
import { contextFor } from '../dist/src/browser/chromium/launch.js';
import { findSurveyBrowser } from '../dist/src/browser/chromium/find-browser.js';
import { defaultViews } from '../dist/src/core/visitors/view.js';

const [url, ...hosts] = process.argv.slice(2);
const rules = hosts.map((mapping) => `MAP ${mapping.replace('=', ' ')}`).join(',');
const args = [`--host-resolver-rules=${rules}`];
if (process.getuid?.() === 0) args.push('--no-sandbox');
const browser = await chromium.launch({ executablePath: findSurveyBrowser(), args });
for (const view of defaultViews) {
  const page = await (await browser.newContext(contextFor(view))).newPage();
  await page.goto(url, { waitUntil: 'load' });
  await page.evaluate(`(async () => {
    for (let top = 0; top < document.documentElement.scrollHeight; top += innerHeight) {
      scrollTo(0, top);
      await new Promise(requestAnimationFrame);
    }
  })()`);
}
await browser.close();
