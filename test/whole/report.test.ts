import { createRequire } from 'node:module';
import { once } from 'node:events';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launchBrowser } from '../../dist/src/browser/chromium/launch.js';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson, start, twoViews } from '../support/program.js';
import { openedReport, reportData, reportViews, reportedSite } from '../support/report.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

let browser: Browser;
let cwd: string;
let origin: string;
const tidy: (() => unknown)[] = [];

beforeAll(async () => {
  cwd = temporaryFolder((remove) => tidy.push(remove));
  ({ origin } = await serve(await reportedSite(), (close) => tidy.push(close)));
  await run(['survey', `${origin}/`, ...twoViews, '--label', 'kites'], { cwd });
  const clocking = ['--runs', '3', '--view', 'laptop', '--network', 'fibre'];
  await run(['clock', `${origin}/`, ...clocking, '--label', 'before', '--film', 'f.svg'], { cwd });
  await run(['clock', `${origin}/`, ...clocking, '--label', 'after'], { cwd });
  const trying = ['--runs', '1', '--most-runs', '1', '--network', 'fibre', '--view', 'laptop'];
  await run(['trial', `${origin}/`, '--fix', 'lazy,defer', ...trying], { cwd });
  await run(['refit', '--out', 'new'], { cwd });
  browser = await launchBrowser();
}, 600_000);

afterAll(async () => {
  await browser?.close();
  for (const close of tidy) await close();
});

const made = (values: readonly string[]) => run(['report', ...values], { cwd });

interface Surveys {
  readonly surveys: readonly { readonly pages: number }[];
}

describe('a report', () => {
  it('is written, and told of', async () => {
    const written = await runJson<Record<string, unknown>>(
      ['report', '--out', 'report.html', '--refit', 'new'],
      { cwd },
    );
    expect(schemaErrors('written-report', written)).toEqual([]);
    expect(written).toMatchObject({
      ...{ survey: 'kites', pages: 2, comparisons: 2, trials: 1, isUnfinished: false },
    });
    // One image is none.
    expect(written['withoutPicture']).toBe(1);
    const again = await made(['--out', 'report.html']);
    expect(again.stdout).toContain('Wrote report.html');
    expect(again.stdout).toContain('1 image has no thumbnail');
    const [, address = ''] = /explain '(.*)' tells more of it/.exec(again.stdout) ?? [];
    const told = await run(['explain', address], { cwd });
    expect(told.stdout).toContain('/broken.jpg');
    await made(['--out', 'report.html', '--refit', 'new']);
  });

  it.each(['whole', 'redact', 'lean'])(
    'is made from the documents that other programs know (%s)',
    async (kind) => {
      const more = kind === 'whole' ? [] : [`--${kind}`];
      await made(['--out', 'told.html', '--overwrite', '--refit', 'new', ...more]);
      const data = reportData(join(cwd, 'told.html'));
      expect(schemaErrors('report', data)).toEqual([]);
      expect(data['sessions']).toHaveLength(4);
      expect(schemaErrors('report', { ...data, rank: {}, sessions: [{}] })).not.toEqual([]);
    },
  );

  it('is opened by the program that a person has for it', async () => {
    const opener = join(cwd, 'opener.sh');
    writeFileSync(opener, `#!/bin/sh\necho "$1" > ${join(cwd, 'opened')}\n`, { mode: 0o755 });
    const { status } = await run(['report', '--out', 'report.html', '--open'], {
      ...{ cwd, env: { BROWSER: opener } },
    });
    expect(status).toBe(0);
    await expect
      .poll(() => existsSync(join(cwd, 'opened')) && readFileSync(join(cwd, 'opened'), 'utf8'))
      .toBe(`${join(cwd, 'report.html')}\n`);
    await made(['--out', 'report.html', '--refit', 'new']);
  });

  it('is made of what there is of a survey that was broken off, and says so', async () => {
    const call = [...twoViews, '--pace', '20000', '--workspace', 'broken', '--label', 'broken'];
    const child = start(['survey', `${origin}/`, ...call], { cwd });
    const ended = once(child, 'exit');
    await expect
      .poll(
        async () => {
          if (!existsSync(join(cwd, 'broken/workspace.sqlite'))) return 0;
          const list = await run(['surveys', '--json', '--workspace', 'broken'], { cwd });
          return (JSON.parse(list.stdout) as Surveys).surveys[0]?.pages ?? 0;
        },
        { timeout: 60_000, interval: 300 },
      )
      .toBe(1);
    child.kill('SIGKILL');
    await ended;
    const { status, stdout } = await made(['--out', 'broken.html', '--workspace', 'broken']);
    expect([status, stdout]).toEqual([0, expect.stringContaining('interrupted')]);
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'broken.html'));
    expect(await page.locator('header').innerText()).toContain('interrupted');
    for (const view of reportViews) await show(view);
    expect(troubles()).toEqual([]);
    await close();
  });

  it('is made of a survey that found nothing', async () => {
    await run(['survey', `${origin}/gone`, ...twoViews, '--workspace', 'empty'], { cwd });
    expect((await made(['--out', 'empty.html', '--workspace', 'empty'])).status).toBe(0);
    const { show, troubles, close } = await openedReport(browser, join(cwd, 'empty.html'));
    for (const view of reportViews) await show(view);
    expect(troubles()).toEqual([]);
    await close();
  });

  it('asks for nothing, runs nothing of a page, and says nothing to the console', async () => {
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'report.html'));
    for (const view of reportViews) await show(view);
    expect(await page.evaluate(() => (window as { broken?: number }).broken)).toBeUndefined();
    expect(troubles()).toEqual([]);
    await close();
  });

  it('sorts, filters and searches fixes, and opens one with what there is to see', async () => {
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'report.html'));
    await show('fixes');
    const names = () => page.locator('.row .opener').allTextContents();
    const all = await names();
    expect(all.length).toBeGreaterThan(3);
    const bytes = page.locator('[role=columnheader].bytes');
    expect(await bytes.getAttribute('aria-sort')).toBe('descending');
    await bytes.locator('button').click();
    expect(await bytes.getAttribute('aria-sort')).toBe('ascending');
    await bytes.locator('button').click();
    await page.selectOption('.tools select >> nth=1', 'images');
    const images = await names();
    expect(images.length).toBeLessThan(all.length);
    await page.fill('input[type=search]', 'large.jpg');
    await expect.poll(async () => (await names()).length).toBe(1);
    await page.locator('.opener').click();
    await page.waitForSelector('.detail .slider');
    expect(page.url()).toContain('#fixes/images-');
    const detail = await page.locator('.detail').innerText();
    expect(detail).toContain('/large.jpg');
    expect(detail).toContain('To do');
    expect(await page.locator('.detail .plan svg').count()).toBe(1);
    const after = page.locator('.slider img >> nth=1');
    const clip = () => after.evaluate((element) => getComputedStyle(element).clipPath);
    const before = await clip();
    await page.locator('.slider input').focus();
    await page.keyboard.press('ArrowRight');
    expect(await clip()).not.toBe(before);
    expect(troubles()).toEqual([]);
    await close();
  });

  it('hands over a snippet and what the trade calls a ticket', async () => {
    const { page, show, close } = await openedReport(browser, join(cwd, 'report.html'));
    await show('fixes');
    await page.fill('input[type=search]', 'blocking-script');
    await expect.poll(() => page.locator('.opener').count()).toBe(1);
    await page.locator('.opener').click();
    expect(await page.locator('.detail pre').innerText()).toBe(
      `<script src="${origin}/block.js" defer></script>`,
    );
    await page.locator('.detail .copy button').click();
    await page.waitForFunction(() =>
      document.querySelector('.detail [role=status]')?.textContent?.startsWith('Copied'),
    );
    await close();
  });

  it('shows pages by the keyboard, with the first screen and what is outlined there', async () => {
    const { page, show, close } = await openedReport(browser, join(cwd, 'report.html'));
    await show('pages');
    await page.locator('.list .scroll').focus();
    const heading = () => page.locator('.page h2').innerText();
    const first = await heading();
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(
      (was) => document.querySelector('.page h2')?.textContent !== was,
      first,
    );
    await page.keyboard.press('ArrowUp');
    await page.waitForFunction(
      (was) => document.querySelector('.page h2')?.textContent === was,
      first,
    );
    const screen = page.locator('.plan .photograph');
    expect(await screen.getAttribute('href')).toMatch(/^data:image\/webp;base64,/);
    // Outlines in proportion to the waste: the stronger, the more.
    const widths = await page
      .locator('.plan rect.waste')
      .evaluateAll((boxes) => boxes.map((box) => Number(box.getAttribute('stroke-width'))));
    expect(widths.length).toBe(2);
    expect(widths).toEqual(widths.toSorted((a, b) => a - b));
    await page.locator('.views input >> nth=1').check();
    expect(await page.locator('.plan svg').getAttribute('aria-label')).toContain('view laptop');
    await close();
  });

  it('draws loads that zoom, filter and are read by the keyboard, with the film below', async () => {
    const { page, show, troubles, close } = await openedReport(browser, join(cwd, 'report.html'));
    await show('loading');
    const ticks = () => page.locator('.waterfall >> nth=0 >> .tick').allTextContents();
    const whole = await ticks();
    await page.getByRole('button', { name: 'Zoom in' }).click();
    expect(await ticks()).not.toEqual(whole);
    await page.getByRole('button', { name: 'Whole load' }).click();
    expect(await ticks()).toEqual(whole);
    await page.locator('.waterfall').first().focus();
    await page.keyboard.press('ArrowDown');
    const told = page.locator('.request-detail');
    expect(await told.innerText()).toMatch(/receive|wait/);
    await told.locator('summary').first().click();
    expect(await told.innerText()).toContain('content-type');
    await page.selectOption('label:has-text("Type") select', 'image');
    expect(await page.locator('.waterfall').first().locator('.request').count()).toBe(2);
    await page.selectOption('label:has-text("Session") >> nth=0 >> select', { index: 0 });
    expect(await page.locator('.load figure image').count()).toBeGreaterThan(0);
    expect(await page.locator('.compared').count()).toBeGreaterThan(1);
    await page.selectOption('label:has-text("Above another") select', { index: 2 });
    expect(await page.locator('.waterfall').count()).toBe(2);
    expect(troubles()).toEqual([]);
    await close();
  });

  it('keeps what is ticked off, and prints a page a person', async () => {
    const { page, show, close } = await openedReport(browser, join(cwd, 'report.html'));
    await show('hand-over');
    const left = () => page.locator('.tools [role=status]').innerText();
    const before = await left();
    await page.locator('.work input').first().check();
    expect(await left()).not.toBe(before);
    await page.reload();
    await page.waitForSelector('.work');
    expect(await page.locator('.work input').first().isChecked()).toBe(true);
    const people = await page.locator('.person').count();
    const pdf = (await page.pdf()).toString('latin1');
    expect((pdf.match(/\/Type \/Page\b/g) ?? []).length).toBeGreaterThanOrEqual(people);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByText('Download as CSV').click(),
    ]);
    const csv = readFileSync(await download.path(), 'utf8');
    expect(csv).toContain('id,who,what');
    await close();
  });

  it('prints every fix, where the window shows some', async () => {
    const { page, show, close } = await openedReport(browser, join(cwd, 'report.html'));
    await page.setViewportSize({ width: 1280, height: 200 });
    await show('fixes');
    const all = Number.parseInt(await page.locator('.tools [role=status]').innerText(), 10);
    const drawn = () => page.locator('.row').count();
    expect(await drawn()).toBeLessThan(all);
    const print = (event: string) => page.evaluate((name) => dispatchEvent(new Event(name)), event);
    await print('beforeprint');
    await expect.poll(drawn).toBe(all);
    await print('afterprint');
    await expect.poll(drawn).toBeLessThan(all);
    await close();
  });

  it.each([
    ['light', {}],
    ['dark', { dark: true }],
    ['on a phone', { phone: true }],
  ])('has no serious fault for people who use other means, %s', async (_, more) => {
    const { page, show, close } = await openedReport(browser, join(cwd, 'report.html'), more);
    await page.evaluate(axe);
    for (const view of reportViews) {
      await show(view);
      if (view === 'fixes') await page.locator('.opener').first().click();
      const found = await page.evaluate(async () => {
        const { axe: checker } = window as unknown as {
          axe: {
            run: () => Promise<{
              violations: { id: string; impact: string; nodes: { html: string }[] }[];
            }>;
          };
        };
        const { violations } = await checker.run();
        return violations
          .filter(({ impact }) => impact === 'serious' || impact === 'critical')
          .map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 200)}`);
      });
      expect([view, found]).toEqual([view, []]);
      const wide = await overflow(page);
      expect([view, wide]).toEqual([view, 0]);
    }
    await close();
  });
});

/** Pixels by which a page is wider than its window. */
function overflow(page: Page): Promise<number> {
  return page.evaluate(() => Math.max(0, document.documentElement.scrollWidth - innerWidth));
}
