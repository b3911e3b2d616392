import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { chromium } from 'playwright-core';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findSurveyBrowser } from '../../dist/src/browser/chromium/find-browser.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import type { Size } from '../../src/core/base/size.js';
import { readLuma } from '../../src/images/picture.js';
import { temporaryFolder } from '../support/folder.js';
import type { RefitManifestDocument } from '../support/refit-manifest.js';
import { outcomeOf, run, runJson, start, twoViews } from '../support/program.js';
import { serverPackages, startPostgres } from '../fleet/postgres-server.js';
import { startContentSystem, systemPackages } from './content-system.js';
import type { ContentSystem } from './content-system.js';
import { deploy, smallerFiles } from './deploy-system.js';
import { likeness } from './looks.js';
import { providePackages } from '../support/packages.js';
import { fromCamera, photographPackages, photographs } from './photographs.js';
import { seed } from './seed.js';

const noServer = providePackages(serverPackages);
const missing = providePackages([...systemPackages, ...photographPackages]);
if (missing) process.stderr.write(`skipped: ${missing}\n`);

interface Ranked {
  readonly perVisit: { readonly wasteBytes: number; readonly sentBytes: number };
  readonly images: readonly {
    readonly url: string;
    readonly intrinsic: Size | null;
    readonly findings: readonly { readonly id: string; readonly data: unknown }[];
    readonly placements: readonly {
      readonly page: string;
      readonly view: string;
      readonly selector: string;
      readonly rendered: Size;
      readonly shown: boolean;
    }[];
  }[];
}

interface Tried {
  readonly bytes: { readonly difference: number };
  readonly placements: { readonly moved: readonly object[] };
}

const views = chooseViews(defaultViews, ['phone', 'laptop']);
const pictures = 8;
/** The least structural similarity of a page before and after. */
const leastAlike = 0.991;

let system: ContentSystem;
let cwd: string;
let editors: readonly { readonly id: number; readonly link: string }[];
let before: Ranked;
let after: Ranked;
let looksBefore: Map<string, Buffer>;

const survey = async (label: string) => {
  const call = ['survey', system.origin, '--label', label, ...twoViews];
  const { status, stderr } = await run(call, { cwd });
  expect([status, stderr]).toEqual([0, expect.any(String)]);
  return runJson<Ranked>(['rank', '--survey', label, '--by', 'image', '--top', '1000'], { cwd });
};

describe.skipIf(missing)('a content system that makes its own sizes', () => {
  beforeAll(async () => {
    cwd = temporaryFolder(() => {});
    system = await startContentSystem(mkdtempSync(join(tmpdir(), 'lynx-system-')));
    const files = await photographs(pictures);
    const { pages } = await seed(
      system,
      await Promise.all(files.map((path, at) => fromCamera(path, at % 3 === 0 ? 2_800 : 2_000))),
    );
    editors = pages;
    before = await survey('before');
    looksBefore = await looks();
    const { status, stderr } = await run(['refit', '--out', 'refit', '--review', '0'], {
      cwd,
      env: { ZEALOUS_LYNX_PROVE: 'true' },
    });
    expect([status, stderr]).toEqual([0, expect.any(String)]);
  });
  afterAll(() => system.close());

  it.skipIf(noServer)(
    'shows two workers with a database every image in the size that one program saw',
    async () => {
      const server = await startPostgres();
      const on = ['--workspace', server.database()];
      const working = ['one', 'two'].map((name) =>
        start(['worker', '--name', name, '--tabs', '2', ...on], { cwd }),
      );
      const ended = working.map(outcomeOf);
      try {
        const call = [
          'survey',
          system.origin,
          '--hand-over',
          '--label',
          'shared',
          ...twoViews,
          ...on,
        ];
        expect((await run(call, { cwd })).status).toBe(0);
        while (server.ask(on[1]!, 'SELECT count(finished_at) FROM survey') !== '1')
          await pause(500);
        const ranking = ['rank', '--by', 'image', '--top', '1000', ...on];
        const shared = await runJson<Ranked>(ranking, { cwd });
        // Of a picture that a page shows twice, the browser takes the larger file for both places if that has come by then.
        const places = ({ images }: Ranked) =>
          images
            .flatMap(({ placements }) =>
              placements.map(({ page, view, selector, rendered, shown }) =>
                [page, view, selector, rendered.width, shown].join(' '),
              ),
            )
            .sort();
        expect(places(before).length).toBeGreaterThan(100);
        expect(places(shared)).toEqual(places(before));
        for (const one of working) one.kill('SIGTERM');
        expect((await Promise.all(ended)).map(({ status }) => status)).toEqual([0, 0]);
      } finally {
        for (const one of working) one.kill('SIGKILL');
        await server.close();
      }
    },
  );

  it('gets no file that is smaller than what is at its place', async () => {
    expect(await smallerFiles(join(cwd, 'refit'), system.root)).toEqual([]);
  });

  it('gets files whose pixels come from the uploads, and not from what the system made of them', () => {
    const text = readFileSync(join(cwd, 'refit/manifest.json'), 'utf8');
    const { files } = JSON.parse(text) as RefitManifestDocument;
    const reduced = files.filter(({ originals }) => /-\d+x\d+\.jpg$/.test(originals[0]!));
    const from = reduced.map(({ pixelsFrom }) => pixelsFrom ?? '');
    expect(reduced.length).toBeGreaterThan(20);
    expect(from.filter((one) => one !== '').length).toBeGreaterThan(0.6 * reduced.length);
    expect(from.some((one) => /kite-\d+\.jpg$/.test(one))).toBe(true);
  });

  it('is foretold by a trial what the refit will bring, and shows every image in its size', async () => {
    const loading = ['--network', 'mobile', '--view', 'phone', '--runs', '1', '--most-runs', '1'];
    const { pages } = await runJson<{ pages: readonly Tried[] }>(
      ['trial', system.origin, '--refit', 'refit', ...loading],
      { cwd },
    );
    const [tried] = pages;
    expect(tried!.bytes.difference).toBeLessThan(0);
    expect(tried!.placements.moved).toEqual([]);
  });

  it('keeps little of its waste once the papers have been followed', async () => {
    deploy(join(cwd, 'refit'), system);
    after = await survey('after');
    expect(before.perVisit.wasteBytes).toBeGreaterThan(100_000);
    const left = after.perVisit.wasteBytes / before.perVisit.wasteBytes;
    process.stderr.write(`${(left * 100).toFixed(1)} % of the waste is left\n`);
    expect(left).toBeLessThan(0.1);
  });

  it('is blurred nowhere where it was not', () => {
    const blurred = ({ images }: Ranked) =>
      images.flatMap(({ intrinsic, placements }) =>
        placements
          .filter(({ view, rendered, shown }) => {
            const seen = views.find(({ name }) => name === view)!.density;
            const density = Math.min(seen, defaultPolicy.density);
            return shown && intrinsic && rendered.width * density > intrinsic.width * 1.02;
          })
          .map(({ page, view, selector }) => [page, view, selector].join()),
      );
    const was = new Set(blurred(before));
    expect(blurred(after).filter((one) => !was.has(one))).toEqual([]);
  });

  it('looks the same, and is as high as it was', async () => {
    const now = await looks();
    for (const [where, was] of looksBefore) {
      const [one, other] = await Promise.all([readLuma(was, 1), readLuma(now.get(where)!, 1)]);
      // Candidates of other widths have other roundings of the ratio.
      expect([where, Math.abs(other.height - one.height)]).toEqual([
        where,
        expect.toSatisfy((difference: number) => difference <= 1),
      ]);
      expect([where, likeness(one, other)]).toEqual([
        where,
        expect.toSatisfy((found: number) => found >= leastAlike),
      ]);
    }
  });

  it('has no finding that it did not have', () => {
    const was = new Set(before.images.flatMap(({ findings }) => findings.map(({ id }) => id)));
    const fresh = after.images.flatMap(({ url, findings }) =>
      findings.filter(({ id }) => !was.has(id)).map(({ id, data }) => ({ id, url, data })),
    );
    expect(fresh).toEqual([]);
  });

  it('has nothing more to do: a second refit makes no file', async () => {
    const { files } = await runJson<{ files: readonly { path: string }[] }>(
      ['refit', '--survey', 'after', '--out', 'again', '--dry-run', '--no-prove'],
      { cwd },
    );
    expect(files.map(({ path }) => path)).toEqual([]);
  });

  it('has blocks that its editor accepts', async () => {
    const browser = await open();
    try {
      const page = await browser.newPage();
      await page.goto(`${system.origin}wp-login.php`);
      await page.fill('#user_login', system.user);
      await page.fill('#user_pass', system.password);
      await page.click('#wp-submit');
      for (const { id } of editors) {
        await page.goto(`${system.origin}wp-admin/post.php?post=${id}&action=edit`);
        const invalid = await page.evaluate(editorProblems);
        expect([id, invalid]).toEqual([id, []]);
      }
    } finally {
      await browser.close();
    }
  });
});

/** Runs in the editor: the names of the blocks that it does not accept. */
async function editorProblems(): Promise<string[]> {
  interface Block {
    readonly name: string;
    readonly isValid: boolean;
    readonly innerBlocks: readonly Block[];
  }
  const { wp } = globalThis as unknown as {
    wp: { data: { select: (store: string) => { getBlocks: () => readonly Block[] } } };
  };
  const blocks = () => wp.data.select('core/block-editor').getBlocks();
  for (let times = 0; times < 100 && blocks().length === 0; times++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  const all = (some: readonly Block[]): Block[] =>
    some.flatMap((one) => [one, ...all(one.innerBlocks)]);
  const found = all(blocks());
  return found.length === 0
    ? ['no blocks']
    : found.filter(({ isValid }) => !isValid).map(({ name }) => name);
}

function open(): Promise<Browser> {
  return chromium.launch({
    executablePath: findSurveyBrowser(),
    args: ['--disable-background-networking'],
    chromiumSandbox: process.getuid?.() !== 0,
  });
}

/** Every page in every view, as a picture of all of it. */
async function looks(): Promise<Map<string, Buffer>> {
  const browser = await open();
  const found = new Map<string, Buffer>();
  try {
    for (const view of views) {
      const page = await browser.newPage({
        viewport: { width: view.width, height: view.height },
        // At the density that the policy serves: denser screens are to get no more than that.
        deviceScaleFactor: Math.min(view.density, defaultPolicy.density),
        isMobile: view.touch,
        hasTouch: view.touch,
      });
      for (const { link } of editors) {
        await page.goto(link);
        await page.evaluate(async () => {
          for (const image of document.images) {
            image.loading = 'eager';
            // Else it may be drawn a frame later.
            image.decoding = 'sync';
          }
          await Promise.all([...document.images].map((image) => image.decode().catch(() => {})));
          const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
          await frame();
          await frame();
        });
        const picture = await page.screenshot({ fullPage: true, scale: 'css' });
        found.set(`${link} in ${view.name}`, picture);
      }
      await page.close();
    }
  } finally {
    await browser.close();
  }
  return found;
}
