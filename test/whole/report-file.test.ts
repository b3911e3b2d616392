import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { gunzipSync } from 'node:zlib';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launchBrowser } from '../../dist/src/browser/chromium/launch.js';
import { defaultPolicy } from '../../dist/src/core/policy/policy.js';
import type { ReportFileDocument } from '../../dist/src/output/json/report.js';
import { Workspace } from '../../dist/src/store/workspace.js';
import { makeReport } from '../../dist/src/tasks/report/report.js';
import { temporaryFolder } from '../support/folder.js';
import { oneView, run } from '../support/program.js';
import { openedReport, reportData, reportViews, reportedSite } from '../support/report.js';
import { serve } from '../support/server.js';

let browser: Browser;
let cwd: string;
let origin: string;
const tidy: (() => unknown)[] = [];

beforeAll(async () => {
  cwd = temporaryFolder((remove) => tidy.push(remove));
  ({ origin } = await serve(await reportedSite(), (close) => tidy.push(close)));
  await run(['survey', `${origin}/`, ...oneView, '--label', 'kites'], { cwd });
  const clocking = ['--runs', '1', '--view', 'laptop', '--network', 'none'];
  await run(['clock', `${origin}/`, ...clocking, '--label', 'before'], { cwd });
  await run(['refit', '--out', 'new'], { cwd });
  browser = await launchBrowser();
}, 600_000);

afterAll(async () => {
  await browser?.close();
  for (const close of tidy) await close();
});

const made = (values: readonly string[]) => run(['report', ...values], { cwd });

describe('what a report leaves out', () => {
  it('hosts, headers and query strings with --redact, pictures with --lean', async () => {
    await made(['--out', 'secret.html', '--redact', '--lean', '--refit', 'new']);
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'secret.html'));
    const host = new URL(origin).host;
    for (const view of reportViews) {
      await show(view);
      const text = await page.evaluate(() => document.documentElement.outerHTML);
      const drawn = text.replace(/<script[\s\S]*?<\/script>/g, '');
      expect([view, drawn.includes(host), drawn.includes('token=secret')]).toEqual([
        view,
        false,
        false,
      ]);
    }
    await show('loading');
    await page.locator('.waterfall').first().focus();
    await page.keyboard.press('ArrowDown');
    expect(await page.locator('.request-detail details').count()).toBe(0);
    expect(await page.locator('img[src], image').count()).toBe(0);
    expect(troubles()).toEqual([]);
    await close();
  });

  it('nothing that is not there: a survey without bodies, and one that was broken off', async () => {
    const own = ['--workspace', 'bare'];
    await run(['survey', `${origin}/`, '--view', 'laptop', '--no-bodies', ...own], { cwd });
    const { stdout } = await made(['--out', 'bare.html', ...own]);
    expect(stdout).toContain('no thumbnails: their bodies are not kept');
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'bare.html'));
    for (const view of reportViews) await show(view);
    expect(await page.locator('img[src]').count()).toBe(0);
    expect(troubles()).toEqual([]);
    await close();
  });
});

describe('a report of more images and pages than a browser can bear', () => {
  it('lists and draws those that waste the most, and counts the others', async () => {
    const workspace = Workspace.open(join(cwd, '.zealous-lynx'));
    const { html, images, imagesLeftOut, plansLeftOut } = await makeReport(
      workspace,
      defaultPolicy,
      { most: { images: 1, plans: 1 }, program: { name: 'zealous-lynx', version: '1.2.3' } },
    );
    workspace.close();
    expect([imagesLeftOut, plansLeftOut]).toEqual([images - 1, 1]);
    writeFileSync(join(cwd, 'few.html'), html);
    const { rank, pages } = reportData(join(cwd, 'few.html')) as unknown as ReportFileDocument;
    expect(rank.images.map(({ url }) => url)).toEqual([`${origin}/large.jpg`]);
    expect(pages.map(({ views }) => views.length)).toEqual([1, 0]);
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'few.html'));
    for (const view of reportViews) await show(view);
    await show('pages');
    const first = await page.locator('.page').innerText();
    expect(first).toContain('/large.jpg');
    expect(first).toContain('an image that is not listed');
    await page.goto(`${pathToFileURL(join(cwd, 'few.html')).href}#pages/1`);
    await expect.poll(() => page.locator('.page').innerText()).toContain('leaves 1 page out');
    expect(troubles()).toEqual([]);
    await close();
  });
});

describe('a workspace of an earlier version', () => {
  it.each([1, 4, 8])('%i gives a report without plans and pictures', async (version) => {
    const fixture = new URL(`../fixtures/workspace-${version}.sqlite.gz`, import.meta.url);
    const folder = join(cwd, `version-${version}`);
    mkdirSync(folder);
    writeFileSync(join(folder, 'workspace.sqlite'), gunzipSync(readFileSync(fixture)));
    const { status } = await made(['--workspace', folder, '--out', `${version}.html`]);
    expect(status).toBe(0);
    const { page, show, troubles, close } = await openedReport(
      browser,
      join(cwd, `${version}.html`),
    );
    for (const view of reportViews) await show(view);
    await show('pages');
    expect(await page.locator('.page').innerText()).toContain('did not keep where its images');
    expect(troubles()).toEqual([]);
    await close();
  });
});

describe('a report is refused', () => {
  it.each([
    [['--out', 'notes.html'], 'is there, and is not a report of this program'],
    [['--out', 'x.html', '--survey', 'nowhere'], 'there is no survey nowhere'],
    [['--out', 'x.html', '--refit', 'nowhere'], 'nowhere is not the folder of a refit'],
    [['--out', 'x.html', '--before', 'before'], '--before names 1 label and --after 0'],
    [['--out', 'x.html', '--before', 'b', '--after', 'a'], 'there is no session b'],
    [['--out', 'new/manifest.json/x.html'], 'cannot be written'],
  ])('%j', async (values, words) => {
    writeFileSync(join(cwd, 'notes.html'), '<p>mine');
    const { status, stderr } = await made(values);
    expect(status).not.toBe(0);
    expect(stderr).toContain(words);
    expect(readFileSync(join(cwd, 'notes.html'), 'utf8')).toBe('<p>mine');
  });

  it('unless it may be written over', async () => {
    writeFileSync(join(cwd, 'old.html'), '<p>mine');
    expect((await made(['--out', 'old.html', '--overwrite'])).status).toBe(0);
    expect(readFileSync(join(cwd, 'old.html'), 'utf8')).toContain('zealous-lynx report');
  });
});
