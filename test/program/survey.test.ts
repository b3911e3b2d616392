import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { run, runJson, twoViews } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { animation, drawing, photograph } from '../support/pictures.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

interface Ranked {
  readonly url: string;
  readonly urls: readonly string[];
  readonly mediaType: string;
  readonly intrinsic: object | null;
  readonly bytes: number;
  readonly transferBytes: number;
  readonly need: { width: number; height: number } | null;
  readonly neededBytes: number | null;
  readonly wasteBytes: number | null;
  readonly basis: string;
  readonly pages: number;
  readonly thirdParty: boolean;
  readonly findings: readonly { id: string; message: string }[];
  readonly placements: readonly {
    readonly page: string;
    readonly view: string;
    readonly selector: string;
    readonly slot: object;
    readonly rendered: object;
    readonly need: object | null;
    readonly aboveFold: boolean;
    readonly shown: boolean;
    readonly loading: string;
  }[];
}
interface RankDocument {
  readonly totals: Readonly<Record<string, number>>;
  readonly images: readonly Ranked[];
  readonly survey: { readonly finishedAt: string | null };
}
interface SurveyDocument {
  readonly pages: readonly { url: string; status: number | null; error?: string; depth: number }[];
  readonly skipped: readonly { url: string; reason: string }[];
}

const head =
  '<meta name="viewport" content="width=device-width, initial-scale=1"><style>body{margin:0}img{display:block}</style>';
const page = (body: string) => `<!doctype html><title>t</title>${head}${body}`;

let wide: Buffer;
let lying: Buffer;
let flat: Buffer;
let moving: Buffer;

beforeAll(async () => {
  // So low a quality that nothing as similar to it is smaller.
  wide = await photograph(1200, 600).jpeg({ quality: 50, mozjpeg: true }).toBuffer();
  lying = await photograph(400, 200, 7).withMetadata({ orientation: 6 }).jpeg().toBuffer();
  flat = await drawing(300, 300).png().toBuffer();
  moving = await animation(100, 3);
});

/** A site whose every size is known because it is written here. */
function site(folder: string): string {
  const path = join(folder, 'kites');
  writeFiles(path, {
    'index.html': page(
      `<img id="cover" src="img/wide.jpg" style="width:200px;height:200px;object-fit:cover">
       <div class="a"><img src="img/lying.jpg" width="50"></div>
       <img id="padded" src="img/flat.png" style="width:100px;padding:10px;border:5px solid;box-sizing:border-box">
       <img id="twice" src="img/flat.png" style="width:60px;transform:scale(2);transform-origin:0 0">
       <img id="hidden" src="img/moving.gif" style="display:none">
       <img id="vector" src="img/mark.svg" width="40" height="40">
       <div style="height:3000px"></div>
       <img id="far" src="img/copy.jpg" loading="lazy" width="300" height="150">
       <a href="about.html">about</a> <a href="about.html#part">again</a> <a href="img/wide.jpg">file</a>`,
    ),
    'about.html': page('<img src="img/wide.jpg" style="width:100%"><a href="/">home</a>'),
    'img/wide.jpg': wide,
    'img/copy.jpg': wide,
    'img/lying.jpg': lying,
    'img/flat.png': flat,
    'img/moving.gif': moving,
    'img/mark.svg':
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><path d="M0 0h1v1z"/></svg>',
  });
  return path;
}

describe('survey and rank of a folder', () => {
  it('report every number as it was built', async () => {
    const cwd = temporaryFolder();
    const survey = await runJson<SurveyDocument>(['survey', site(cwd), ...twoViews], { cwd });
    expect(schemaErrors('survey', survey)).toEqual([]);
    expect(survey.pages.map(({ url, status, depth }) => [url, status, depth])).toEqual([
      ['http://kites.localhost/', 200, 0],
      ['http://kites.localhost/about.html', 200, 1],
    ]);
    expect(survey.skipped).toEqual([
      { url: 'http://kites.localhost/img/wide.jpg', reason: 'a link to a .jpg file' },
    ]);

    const ranking = await runJson<RankDocument>(['rank'], { cwd });
    expect(schemaErrors('rank', ranking)).toEqual([]);
    const image = (name: string) => ranking.images.find(({ url }) => url.endsWith(name))!;
    const seen = (name: string, selector: string, view: string) =>
      image(name).placements.find((one) => one.selector === selector && one.view === view)!;

    const photo = image('copy.jpg');
    expect(photo).toMatchObject({
      urls: ['http://kites.localhost/img/copy.jpg', 'http://kites.localhost/img/wide.jpg'],
      mediaType: 'image/jpeg',
      intrinsic: { width: 1200, height: 600 },
      bytes: wide.length,
      basis: 'encoded',
      pages: 2,
      thirdParty: false,
      // 390 px at density 3, of which the policy allows 2; the laptop needs 1200 of its 1366.
      need: { width: 1200, height: 600 },
    });
    expect(photo.transferBytes).toBeGreaterThan(wide.length);
    expect(photo.transferBytes).toBeLessThan(wide.length + 1000);
    const ceilings = /^ceiling-|^late-/;
    const found = photo.findings.map(({ id }) => id).filter((id) => !ceilings.test(id));
    expect(found).toEqual([
      'several-addresses',
      'too-few-pixels',
      'no-dimensions',
      'no-alternative',
    ]);
    expect(seen('copy.jpg', '#cover', 'phone')).toMatchObject({
      slot: { width: 200, height: 200 },
      rendered: { width: 400, height: 200 },
      need: { width: 800, height: 400 },
      aboveFold: true,
      shown: true,
      loading: 'eager',
    });
    expect(seen('copy.jpg', '#cover', 'laptop').need).toEqual({ width: 400, height: 200 });
    expect(seen('copy.jpg', '#far', 'laptop')).toMatchObject({
      slot: { width: 300, height: 150 },
      aboveFold: false,
      loading: 'lazy',
    });

    const turned = image('lying.jpg');
    expect(turned).toMatchObject({
      intrinsic: { width: 200, height: 400 },
      need: { width: 100, height: 200 },
    });
    expect(turned.placements[0]!.slot).toEqual({ width: 50, height: 100 });

    expect(seen('flat.png', '#padded', 'laptop').slot).toEqual({ width: 70, height: 70 });
    expect(seen('flat.png', '#twice', 'laptop').slot).toEqual({ width: 120, height: 120 });
    expect(image('flat.png').need).toEqual({ width: 240, height: 240 });

    expect(seen('moving.gif', '#hidden', 'phone')).toMatchObject({ shown: false, need: null });
    expect(image('moving.gif')).toMatchObject({ neededBytes: 0, wasteBytes: moving.length });

    expect(image('mark.svg')).toMatchObject({
      intrinsic: null,
      need: null,
      wasteBytes: 0,
      basis: 'encoded',
      mediaType: 'image/svg+xml',
    });
  });

  it('refit writes what rank promised, in the same folders, and nothing else', async () => {
    const cwd = temporaryFolder();
    await runJson(['survey', site(cwd), ...twoViews], { cwd });
    const ranking = await runJson<RankDocument>(['rank', '--top', '100'], { cwd });
    const out = join(cwd, 'new');
    const printed = await run(['refit', '--out', out], { cwd });
    expect(printed.status).toBe(0);
    expect(printed.stdout).toContain(
      '2 images stay as they are; the reason for each: no smaller file is good enough',
    );
    const manifest = JSON.parse(readFileSync(join(out, 'manifest.json'), 'utf8')) as {
      files: {
        originals: string[];
        path: string;
        to: { width: number; height: number; bytes: number };
      }[];
      variants: unknown[];
    };
    expect(schemaErrors('refit', manifest)).toEqual([]);
    expect(manifest.files.map(({ path }) => path).sort()).toEqual([
      'img/flat.webp',
      'img/lying.avif',
    ]);
    for (const { path, originals, to } of manifest.files) {
      const body = readFileSync(join(out, path));
      const ranked = ranking.images.find(({ url }) => url === originals[0])!;
      expect(body.length).toBe(ranked.neededBytes);
      expect(to).toMatchObject({ bytes: body.length, ...ranked.need });
      expect(await sharp(body).metadata()).toMatchObject({ ...ranked.need });
    }

    const again = await run(['refit', '--out', out], { cwd });
    expect(again.stdout).toContain(
      `${manifest.files.length + manifest.variants.length} files were up to date already`,
    );
  });

  it('refit touches nothing that it did not write', async () => {
    const cwd = temporaryFolder();
    await runJson(['survey', site(cwd), ...twoViews], { cwd });
    writeFiles(join(cwd, 'new'), { 'img/flat.webp': 'mine' });
    const refused = await run(['refit', '--out', 'new'], { cwd });
    expect(refused.status).toBe(3);
    expect(refused.stderr).toMatch(
      /flat\.webp was not written by refit and will not be overwritten.*\[OUTPUT\]\n$/,
    );
    expect(readFileSync(join(cwd, 'new/img/flat.webp'), 'utf8')).toBe('mine');

    writeFiles(join(cwd, 'other'), { 'manifest.json': '{"name":"mine"}' });
    expect((await run(['refit', '--out', 'other'], { cwd })).status).toBe(3);
    expect(readFileSync(join(cwd, 'other/manifest.json'), 'utf8')).toBe('{"name":"mine"}');

    await run(['refit', '--out', 'third'], { cwd });
    writeFiles(join(cwd, 'third'), { 'img/flat.webp': 'changed by hand' });
    expect((await run(['refit', '--out', 'third'], { cwd })).status).toBe(3);
    expect(readFileSync(join(cwd, 'third/img/flat.webp'), 'utf8')).toBe('changed by hand');
  });
});

describe('survey of a site with faults', () => {
  it('makes a row of each, and loses nothing', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({
      '/': {
        body: page(
          `<img src="/good.jpg" width="100"><img src="/cut.jpg" width="100"><img src="/html.jpg" width="100">
           <img src="/none.jpg" width="100"><img src="/wrong.png" width="100"><img src="/moved.jpg" width="100">
           ${['/broken', '/empty', '/hangs-up', '/loop', '/data', '/away', '/old'].map((href) => `<a href="${href}">x</a>`).join('')}`,
        ),
      },
      '/good.jpg': { type: 'image/jpeg', body: wide },
      '/cut.jpg': { type: 'image/jpeg', body: wide.subarray(0, wide.length >> 1) },
      '/html.jpg': { type: 'image/jpeg', body: '<!doctype html><p>Sorry' },
      '/wrong.png': { type: 'image/png', body: lying },
      '/moved.jpg': { location: '/flat.png' },
      '/flat.png': { type: 'image/png', body: flat },
      '/broken': { status: 500, body: 'no' },
      '/empty': { status: 503 },
      '/hangs-up': { hangUp: true },
      '/loop': { location: '/loop' },
      '/data': { type: 'application/json', body: '{}' },
      '/away': { location: 'http://elsewhere.invalid/' },
      '/old': { location: '/new' },
      '/new': { body: page('<p>new') },
    });
    const survey = await runJson<SurveyDocument>(['survey', `${origin}/`, ...twoViews], { cwd });
    expect(schemaErrors('survey', survey)).toEqual([]);
    const errors = Object.fromEntries(
      survey.pages.map(({ url, error }) => [url.slice(origin.length), error]),
    );
    expect(errors).toEqual({
      '/': undefined,
      '/broken': 'returned 500',
      '/empty': 'returned 503, 3 times',
      '/hangs-up': 'the server closed the connection without a response, 3 times',
      '/loop': 'redirect loop',
      '/data': 'is application/json, not a page',
      '/away': 'no such host',
      '/old': undefined,
    });

    const { images, totals } = await runJson<RankDocument>(['rank'], { cwd });
    const row = (name: string) => images.find(({ url }) => url.endsWith(name))!;
    expect(row('/cut.jpg').findings).toContainEqual({
      id: 'unreadable',
      message: expect.stringMatching(/^it cannot be decoded completely/) as string,
      data: expect.anything() as object,
    });
    expect(row('/html.jpg')).toMatchObject({ mediaType: 'text/html', wasteBytes: null });
    expect(row('/wrong.png').findings).toContainEqual({
      id: 'mislabelled',
      message: 'is sent as image/png, but the bytes are image/jpeg',
      data: { declared: 'image/png', actual: 'image/jpeg' },
    });
    expect(row('/flat.png')).toMatchObject({ pages: 1, bytes: flat.length });
    expect(totals['unknownBytes']).toBe((wide.length >> 1) + 23);

    const table = await run(['rank'], { cwd });
    expect(table.stdout).toContain('it is HTML, not an image');
    expect(table.stdout).toContain('6 pages had problems');
  });

  it('does not let one page choose a larger picture because another has loaded it', async () => {
    const cwd = temporaryFolder();
    const large = await photograph(2400, 1200, 3).jpeg().toBuffer();
    const { origin } = await serve({
      '/': { body: page('<img src="/large.jpg" width="100"><a href="/next">x</a>') },
      '/next': {
        body: page('<img id="choice" srcset="/small.jpg 1200w, /large.jpg 2400w" sizes="600px">'),
      },
      '/large.jpg': { type: 'image/jpeg', body: large },
      '/small.jpg': { type: 'image/jpeg', body: wide },
    });
    await runJson(['survey', `${origin}/`, '--tabs', '1', ...twoViews], { cwd });
    const { images } = await runJson<RankDocument>(['rank'], { cwd });
    const small = images.find(({ url }) => url.endsWith('/small.jpg'));
    expect(small?.placements.map(({ view }) => view)).toContain('laptop');
  });
});
