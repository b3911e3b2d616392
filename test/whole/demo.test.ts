import { readFileSync, readdirSync } from 'node:fs';
import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import type { RefitManifestDocument } from '../support/refit-manifest.js';
import { schemaErrors } from '../support/schemas.js';
import { catalogue } from '../../demo/pictures/catalogue.js';
import { draw } from '../../demo/pictures/draw.js';
import { contentHashOf } from '../../src/images/hash.js';
import { demoCache, sharedDemo } from '../support/shared-demo.js';
import { outcomeOf, run, runJson, start } from '../support/program.js';
import type { Outcome } from '../support/program.js';

let cwd: string;
let outcome: Outcome;

beforeAll(async () => {
  ({ cwd, outcome } = await sharedDemo());
});

interface Reply {
  readonly status: number;
  readonly location: string | undefined;
  readonly body: Buffer;
  readonly waited: number;
}

/** Asks the site for a path as a browser would that knows where the host really is. */
function ask(address: string, host: string, path: string): Promise<Reply> {
  const [hostname, port] = address.split(':');
  const began = performance.now();
  return new Promise((resolve, reject) => {
    request({ hostname, port, path, headers: { host } }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({
          status: response.statusCode!,
          location: response.headers.location,
          body: Buffer.concat(parts),
          waited: performance.now() - began,
        }),
      );
    })
      .on('error', reject)
      .end();
  });
}

describe('the pictures', () => {
  it('are of all kinds, and the same bytes every time', async () => {
    const kinds = new Set(catalogue.map(({ path }) => path.split('.').pop()));
    expect(kinds).toEqual(new Set(['jpg', 'png', 'webp', 'gif', 'avif', 'svg']));
    for (const name of ['wind-480.jpg', 'windsock.gif', 'weather.png']) {
      const picture = catalogue.find(({ path }) => path.endsWith(name))!;
      expect((await draw(picture)).equals(await draw(picture))).toBe(true);
    }
  });
});

describe('demo', () => {
  it('tells the whole story and closes with a few lines', async () => {
    const { status, stdout, stderr } = outcome;
    expect(stderr).not.toMatch(/\[\w+\]\n$/);
    expect(status).toBe(0);
    const titles = [
      'survey:',
      'rank:',
      'refit:',
      'trial:',
      'clock: the front page before',
      'compare:',
      'report:',
    ];
    for (const title of titles) expect(stdout).toContain(title);
    const lines = stdout.slice(stdout.lastIndexOf('in a few lines')).split('\n').slice(1);
    expect(lines.map((line) => line.split(' ')[0]).filter((title) => title !== '')).toEqual([
      ...['Surveyed', 'Wasted', 'Refitted', 'Tried', 'Clocked', 'Reported', 'Kept'],
    ]);
    // As wide as the tests let the program write: a sentence that is longer goes on under its beginning.
    expect(lines.filter((line) => line.length > 140)).toEqual([]);
    expect(lines.join('\n')).toMatch(/\nTried {5}With the fixes, [^]*\n {10}\S/);
    expect(readdirSync(demoCache()).filter((name) => name !== 'code')).toHaveLength(1);
    const report = readFileSync(join(cwd, 'brindle-bay-report.html'), 'utf8');
    expect(report).toContain('<title>The Brindle Bay Kite Festival: images and loading</title>');

    const before = await runJson<{ pages: Record<string, { percent: number }>[] }>(
      ['compare', 'before', 'after'],
      { cwd },
    );
    expect(before.pages[0]!['bytes']!.percent).toBeLessThan(-80);

    const manifest = JSON.parse(
      readFileSync(join(cwd, 'brindle-bay-refit/manifest.json'), 'utf8'),
    ) as { files: { path: string; resultHash: string; to: object; originals: string[] }[] };
    for (const { path, resultHash, to } of manifest.files) {
      const body = readFileSync(join(cwd, 'brindle-bay-refit', path));
      expect(contentHashOf(body)).toBe(resultHash);
      const { format, width, pageHeight, height } = await sharp(body, {
        animated: true,
      }).metadata();
      const size =
        format === 'svg' ? { width: null, height: null } : { width, height: pageHeight ?? height };
      expect(to).toMatchObject({ ...size, bytes: body.length });
    }
    const panorama = manifest.files.find(({ path }) => path.includes('bay-panorama'));
    expect(panorama?.originals).toHaveLength(2);
  });

  it('tries the refit as it is deployed afterwards: the same requests, and the same bytes', async () => {
    interface Compared {
      readonly pages: readonly {
        readonly requestCount: { readonly after: { readonly median: number } };
        readonly bytes: { readonly difference: number };
        readonly bytesByType: Readonly<Record<string, { readonly difference: number }>>;
        readonly looks: { readonly changedShare: number };
      }[];
    }
    const compared = async (before: string, after: string) =>
      (await runJson<Compared>(['compare', before, after], { cwd })).pages[0]!;
    const [tried, deployed] = [
      await compared('tried-before', 'tried-after'),
      await compared('before', 'after'),
    ];
    expect(tried.requestCount.after.median).toBe(deployed.requestCount.after.median);
    expect(
      tried.bytesByType['image']!.difference / deployed.bytesByType['image']!.difference,
    ).toBeCloseTo(1, 2);
    expect(tried.looks.changedShare).toBeLessThan(0.01);
  });

  it('finds the faults that the site was given', async () => {
    const { images } = await runJson<{
      images: {
        url: string;
        findings: { id: string; message: string }[];
        causes: Record<string, number>;
        thirdParty: boolean;
      }[];
    }>(['rank', '--top', '100'], { cwd });
    const row = (name: string) => images.find(({ url }) => url.includes(name))!;
    expect(row('IMG_0412.jpg').causes['pixels']).toBeGreaterThan(500_000);
    expect(row('launch-field.png').causes['format']).toBeGreaterThan(300_000);
    expect(row('bay-panorama').causes['duplicate']).toBeGreaterThan(500_000);
    expect(row('partner.jpg').thirdParty).toBe(true);
    const found = (name: string) => row(name).findings.map(({ id }) => id);
    for (const id of ['wrong-sizes', 'late-largest', 'no-dimensions'])
      expect(found('wind-1920.jpg')).toContain(id);
    expect(row('wind-1920.jpg').findings[0]!.message).toMatch(
      /^sizes says .* px, where the slot has .* px.*: write sizes="\(max-width: 720px\) .*, 672px"$/,
    );
    for (const id of ['no-alternative', 'nameless', 'ceiling-area', 'ceiling-side'])
      expect(found('DSC02238.jpg')).toContain(id);
    // Its cell keeps its size while it is fetched.
    expect(found('DSC02238.jpg')).not.toContain('no-dimensions');
    expect(found('banner-1.jpg')).toContain('late-largest');
    expect(found('banner-2.jpg')).not.toContain('late-largest');
    expect(found('logo.svg')).toEqual([]);
  });

  it('needs of every image what refit wrote for it, to the byte', async () => {
    const { images } = await runJson<{
      images: { urls: string[]; neededBytes: number | null; bytes: number; neededFormat: string }[];
    }>(['rank', '--top', '100'], { cwd });
    const manifest = JSON.parse(
      readFileSync(join(cwd, 'brindle-bay-refit/manifest.json'), 'utf8'),
    ) as RefitManifestDocument;
    expect(manifest.files.length).toBeGreaterThan(30);
    for (const { path, originals, pixelsFrom } of manifest.files) {
      // What the site offers in several widths keeps its own; what has other pixels has other bytes.
      if (path.startsWith('img/journal/wind-') || pixelsFrom !== null) continue;
      const image = images.find(({ urls }) => urls.includes(originals[0]!))!;
      const body = readFileSync(join(cwd, 'brindle-bay-refit', path));
      // A vector is needed as it is compressed on the wire.
      const sent = path.endsWith('.svg') ? gzipSync(body, { level: 9 }) : body;
      expect([path, image.neededBytes]).toEqual([path, sent.length]);
      expect(path.endsWith(image.neededFormat.replace('jpeg', 'jpg'))).toBe(true);
    }
  });

  it('adds up to one total in every grouping', async () => {
    interface Rows {
      perVisit: { sentBytes: number; wasteBytes: number };
      rows: { perVisit: { sentBytes: number; wasteBytes: number } }[];
    }
    const totals = new Set<string>();
    for (const by of ['image', 'family', 'page', 'group', 'host', 'cause']) {
      const document = await runJson<Rows>(['rank', '--by', by, '--top', '1000'], { cwd });
      expect(schemaErrors('rank', document)).toEqual([]);
      const { rows, perVisit } = document;
      const sum = (valueOf: (row: Rows['rows'][number]) => number) =>
        rows.reduce((all, row) => all + valueOf(row), 0);
      expect(sum((row) => row.perVisit.wasteBytes)).toBe(perVisit.wasteBytes);
      expect(sum((row) => row.perVisit.sentBytes)).toBe(perVisit.sentBytes);
      totals.add(`${perVisit.sentBytes} ${perVisit.wasteBytes}`);
    }
    // Each grouping rounds once for each of its causes.
    const wastes = [...totals].map((pair) => Number(pair.split(' ')[1]));
    expect(Math.max(...wastes) - Math.min(...wastes)).toBeLessThanOrEqual(7);
  });

  it('explains an image and a page', async () => {
    const own = temporaryFolder();
    const image = await runJson<{
      image: { trials: { quality: number | null; similarity: number }[]; neededBytes: number };
      fix: { steps: string[]; sizes: string; widths: number[] };
    }>(['explain', '/img/journal/launch-field.png', '--svg', join(own, 'slot.svg')], { cwd });
    expect(schemaErrors('explain', image)).toEqual([]);
    expect(image.image.trials.length).toBeGreaterThan(1);
    expect(image.fix.sizes).toBe(
      '(max-width: 720px) calc(100vw - 32px), (max-width: 760px) 688px, 672px',
    );
    expect(image.fix.steps.join()).toMatch(/send it as avif, quality \d+, 716×477 instead of/);
    const svg = readFileSync(join(own, 'slot.svg'));
    expect(await sharp(svg).metadata()).toMatchObject({ format: 'svg' });
    expect(svg.toString()).toContain('the file has 1500 px');

    const page = await runJson<{
      page: { images: { url: string; firstScreen: string[] }[]; findings: { id: string }[] };
    }>(['explain', 'http://brindlebay.test/'], { cwd });
    expect(schemaErrors('explain', page)).toEqual([]);
    const names = page.page.images.map(({ url }) => url.split('/').at(-1));
    expect(names.slice(0, 3)).toEqual(['logo.svg', 'banner-1.jpg', 'banner-2.jpg']);
    expect(page.page.images[1]!.firstScreen).toEqual(['phone', 'laptop']);
    expect(page.page.images[2]!.firstScreen).toEqual([]);
    expect(page.page.findings.map(({ id }) => id)).toEqual(['heavy-page']);

    const told = await run(['explain', '#no-such-thing'], { cwd });
    expect([told.status, told.stderr]).toEqual([2, expect.stringContaining('[NOT_FOUND]')]);
  });

  it('serves the site with its faults when that is all it is asked for', async () => {
    const child = start(['demo', '--serve', '--json'], {
      cwd,
      env: { ZEALOUS_LYNX_CACHE: demoCache() },
    });
    const ended = outcomeOf(child);
    const told = await new Promise<{ hosts: Record<string, string> }>((resolve) => {
      child.stdout!.once('data', (text: string) =>
        resolve(JSON.parse(text) as { hosts: Record<string, string> }),
      );
    });
    expect(schemaErrors('demo-site', told)).toEqual([]);
    const { hosts } = told;
    const address = hosts['brindlebay.test']!;
    const get = (path: string, host = 'brindlebay.test') => ask(address, host, path);
    expect((await get('/')).body.toString()).toContain('The whole bay looks up');
    expect(await get('/tickets')).toMatchObject({ status: 302, location: '/programme/' });
    expect((await get('/favicon.ico')).status).toBe(404);
    expect((await get('/img/../../package.json')).status).toBe(404);
    expect((await get('/getting-there/')).waited).toBeGreaterThanOrEqual(699);
    const panorama = await get('/img/site/bay-panorama.jpg');
    expect((await get('/media/2026/panorama-copy.jpg')).body.equals(panorama.body)).toBe(true);
    expect((await get('/tag.js', 'tags.driftcount.test')).status).toBe(200);
    expect((await get('/badge/weather.png', 'cdn.gullpost.test')).status).toBe(200);
    expect((await get('/badge/weather.png')).status).toBe(404);
    child.kill('SIGINT');
    expect((await ended).status).toBe(0);
  });
});
