import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { load } from 'cheerio';
import { parse } from 'csv-parse/sync';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { fromBufferPromise } from 'yauzl';
import { readCredit } from '../../src/images/credit.js';
import { contentHashOf } from '../../src/images/hash.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { animation, drawing, photograph, scene } from '../support/pictures.js';
import { run, runJson, twoViews } from '../support/program.js';
import type { RefitManifestDocument as Manifest } from '../support/refit-manifest.js';
import { schemaErrors } from '../support/schemas.js';

let cwd: string;

/** A site of which every size is known: a hero that covers, a card, a fluid picture, a background, a film, icons. */
beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const dots = Array.from(
    { length: 20 },
    (_, at) => `<circle cx="${at}.5" cy="39.5" r="0.25"/>`,
  ).join('');
  const icon = (colour: string) =>
    `<!-- made by hand ${'and with care '.repeat(80)}--><svg xmlns="http://www.w3.org/2000/svg" width="40" height="40" viewBox="0 0 40 40"><g><path d="M 2.0000 2.0000 L 38.0000 2.0000 L 20.0000 38.0000 Z" fill="${colour}"/>${dots}</g></svg>`;
  writeFiles(cwd, {
    'site/index.html': `<!doctype html><meta name="viewport" content="width=device-width"><style>body{margin:0}#hero{width:100%;height:300px;object-fit:cover}#card{width:320px}#fluid{width:50vw}#box{width:400px;height:200px;background:url(/img/box.png) 0 0/cover}</style>
      <img id="hero" src="/img/IMG_0042.jpg" alt="Kites above the bay &amp; the pier"><div style="height:2000px"></div>
      <img id="card" src="/img/card.jpg" alt=""><img id="fluid" src="/img/fluid.jpg"><div id="box"></div>
      <img src="/img/film.gif" width="80" height="80" alt="A kite that turns"><img src="/icons/sail.svg" width="40" height="40" alt="Sail"><img src="/icons/knot.svg" width="40" height="40" alt="">
      <img src="/img/small.webp" width="300" alt="Right already"><img src="/img/cut.jpg" width="100" alt="Cut off">`,
    'site/img/IMG_0042.jpg': await scene(2400, 1200).jpeg({ quality: 95 }).toBuffer(),
    'site/img/card.jpg': await scene(1600, 1000).jpeg({ quality: 95 }).toBuffer(),
    'site/img/fluid.jpg': await scene(683, 342).jpeg({ quality: 95 }).toBuffer(),
    'site/img/box.png': await drawing(1200, 600).png({ palette: false }).toBuffer(),
    'site/img/film.gif': await animation(240, 6),
    'site/icons/sail.svg': icon('#e4572e'),
    'site/icons/knot.svg': icon('#17637a'),
    'site/img/small.webp': await scene(300, 200).webp({ quality: 20 }).toBuffer(),
    'site/img/cut.jpg': (await photograph(800, 600).jpeg().toBuffer()).subarray(0, 30_000),
  });
  await runJson(['survey', 'site', ...twoViews, '--label', 'before'], { cwd });
});

const read = (path: string) => readFileSync(join(cwd, path));
const json = <Document>(path: string) => JSON.parse(read(path).toString()) as Document;

describe('refit', () => {
  it('prints what it would write, and writes nothing, when it is only asked', async () => {
    const dry = await runJson<Manifest>(['refit', '--out', 'dry', '--dry-run'], { cwd });
    expect(schemaErrors('refit', dry)).toEqual([]);
    expect(readdirSync(cwd)).not.toContain('dry');
    const told = await run(['refit', '--out', 'dry', '--dry-run'], { cwd });
    expect(told.stdout).toMatch(/^Nothing was written. This is what would be:/);
    for (const { path } of dry.files.slice(0, 3)) expect(told.stdout).toContain(path);
  });

  it('writes every file that its manifest names, each in the sizes that it says', async () => {
    const manifest = await runJson<Manifest>(['refit', '--out', 'new', '--zip', 'new.zip'], {
      cwd,
    });
    expect(schemaErrors('refit', manifest)).toEqual([]);
    expect(manifest.files.map(({ path }) => path).sort()).toEqual([
      'icons/knot.svg',
      'icons/sail.svg',
      'img/IMG_0042.avif',
      'img/box.webp',
      'img/card.avif',
      'img/film.webp',
      'img/fluid.avif',
    ]);
    for (const { path, resultHash } of [...manifest.files, ...manifest.variants])
      expect(contentHashOf(read(`new/${path}`))).toBe(resultHash);
    for (const { path, width, mediaType, bytes } of manifest.variants) {
      const found = await sharp(read(`new/${path}`)).metadata();
      const format = found.format === 'heif' ? found.compression : found.format;
      expect([path, found.width, `image/${format === 'av1' ? 'avif' : format}`]).toEqual([
        path,
        width,
        mediaType,
      ]);
      expect(statSync(join(cwd, 'new', path)).size).toBe(bytes);
    }
    const widths = (name: string) =>
      manifest.variants.filter(({ path }) => path.includes(name)).map(({ width }) => width);
    // Phone: 600 px of a 2:1 picture cover 390 × 300, at a density of 2; laptop: 1366 px, which is more.
    const hero = manifest.files.find(({ path }) => path.includes('IMG_0042'))!;
    expect([hero.to.width, widths('IMG_0042')]).toEqual([1366, [1366, 1200, 1200]]);
    // A slot of 320 px: the phone needs 640 pixels, the laptop half of that.
    expect(widths('card')).toEqual([640, 320, 320]);
    const film = manifest.variants.find(({ path }) => path.includes('film'))!;
    expect(film).toMatchObject({ path: 'img/film.gif', use: 'fallback', width: 160 });
    expect((await sharp(read('new/img/film.webp'), { animated: true }).metadata()).pages).toBe(6);
    const reasonFor = (name: string) => manifest.kept.find(({ url }) => url.endsWith(name))?.reason;
    expect(reasonFor('small.webp')).toBe('no smaller file is good enough');
    expect(reasonFor('cut.jpg')).toMatch(/^it cannot be decoded completely/);

    const zip = await fromBufferPromise(read('new.zip'));
    const packed: string[] = [];
    for await (const { fileName } of zip.eachEntry()) packed.push(fileName);
    const written = [...manifest.files, ...manifest.variants, ...manifest.papers];
    expect(packed.sort()).toEqual(['manifest.json', ...written.map(({ path }) => path)].sort());
  });

  it('hands over a list that can be worked through', async () => {
    const rows = parse<Record<string, string>>(read('new/worklist.csv'), { columns: true });
    const { worklist } = await runJson<Manifest>(['refit', '--out', 'new', '--dry-run'], { cwd });
    expect(rows).toHaveLength(worklist.length);
    expect(schemaErrors('worklist', json('new/worklist.json'))).toEqual([]);
    // The program served the folder itself, and as a good server would.
    expect(new Set(rows.map(({ who }) => who))).toEqual(new Set(['content', 'markup']));
    // What is saved adds up to what is wasted, of everything that can be mended.
    const { perVisit } = await runJson<{ perVisit: { wasteBytes: number } }>(['rank'], { cwd });
    const saved = worklist.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0);
    expect(Math.abs(saved - perVisit.wasteBytes)).toBeLessThan(perVisit.wasteBytes * 0.01);
    const text = read('new/worklist.md').toString();
    for (const title of ['## Content', '## Markup']) expect(text).toContain(title);
  });

  it('gives markup to paste that a browser understands', () => {
    const document = json<{
      snippets: {
        url: string;
        places: { selector: string }[];
        language: string;
        text: string;
      }[];
    }>('new/snippets.json');
    expect(schemaErrors('snippets', document)).toEqual([]);
    const snippet = (selector: string) =>
      document.snippets.find(({ places }) => places.some((place) => place.selector === selector))!;
    const hero = load(snippet('#hero').text);
    expect(hero('picture > img').attr()).toMatchObject({
      width: '2400',
      height: '1200',
      alt: 'Kites above the bay & the pier',
      fetchpriority: 'high',
      src: '/img/IMG_0042.jpg',
    });
    expect(hero('img').attr('loading')).toBeUndefined();
    // Up to 600 px of the window, 600 px of a 2:1 picture cover a slot 300 px high; then the window decides.
    expect(hero('source').attr('sizes')).toBe('(max-width: 600px) 600px, 100vw');
    const offered = hero('source').attr('srcset')!.split(', ');
    expect(offered).toEqual(['/img/IMG_0042-1200.avif 1200w', '/img/IMG_0042.avif 1366w']);
    const fluid = load(snippet('#fluid').text);
    expect(fluid('source')).toHaveLength(1);
    for (const element of ['source', 'img']) expect(fluid(element).attr('sizes')).toBe('50vw');
    expect(fluid('img').attr('loading')).toBe('lazy');
    // What the element does not have, nobody adds.
    expect(fluid('img').attr('alt')).toBeUndefined();
    const film = load(snippet('body > img:nth-of-type(4)').text);
    expect(film('img').attr()).toMatchObject({ src: '/img/film.gif', width: '80', height: '80' });
    expect(snippet('#box')).toMatchObject({ language: 'css' });
    expect(snippet('#box').text).toBe(
      'image-set(url("/img/box.webp") type("image/webp"), url("/img/box.png") type("image/png"))',
    );
    expect(read('new/snippets.md').toString()).toContain(snippet('#fluid').text);
  });

  it('maps old addresses to new ones', () => {
    const document = json<{ rewrites: { from: string; to: string; files: object[] }[] }>(
      'new/rewrites.json',
    );
    expect(schemaErrors('rewrites', document)).toEqual([]);
    const card = document.rewrites.find(({ from }) => from.endsWith('/img/card.jpg'))!;
    expect([card.to, card.files]).toMatchObject(['img/card.avif', { length: 4 }]);
  });

  it('shows originals and refits side by side', async () => {
    const page = load(read('new/review.html').toString());
    expect(page('section')).toHaveLength(5);
    for (const image of page('img').toArray()) {
      const source = page(image).attr('src')!;
      const { width, height } = await sharp(read(`new/${source}`)).metadata();
      expect(page(image).attr()).toMatchObject({ width: String(width), height: String(height) });
    }
    expect(page('input[type=range]')).toHaveLength(5);
    expect(page('.facts').text()).toMatch(
      /2400×1200 jpeg .* → 1366×683 avif .* similarity 0\.\d{4}/,
    );
    const { format, width } = await sharp(read('new/review.png')).metadata();
    expect([format, width]).toEqual(['png', 1280]);
    await runJson(['refit', '--out', 'plain', '--review', '0'], { cwd });
    expect(readdirSync(join(cwd, 'plain'))).not.toContain('review.html');
  });

  it('names files by pattern, by a list, and by what they show', async () => {
    writeFileSync(join(cwd, 'names.csv'), 'old,new\nimg/card.jpg,cards/kite-over-dunes\n');
    const options = ['--rename', 'names.csv', '--name-by-alt', '--name', '{stem}-{width}.{hash}'];
    const { files } = await runJson<Manifest>(['refit', '--out', 'named', ...options], { cwd });
    const named = (name: string) =>
      files.find(({ originals }) => originals[0]!.endsWith(name))!.path;
    expect(named('IMG_0042.jpg')).toMatch(
      /^img\/kites-above-the-bay-and-the-pier-1366\.\w{8}\.avif$/,
    );
    expect(named('card.jpg')).toMatch(/^cards\/kite-over-dunes-640\.\w{8}\.avif$/);
    expect(named('sail.svg')).toMatch(/^icons\/sail\.\w{8}\.svg$/);
    // Other bytes have another name.
    writeFileSync(join(cwd, 'other.yaml'), 'policy: { similarity: 0.9 }\n');
    const again = await runJson<Manifest>(
      ['refit', '--out', 'other', ...options, '--config', 'other.yaml'],
      { cwd },
    );
    expect(again.files.some(({ path }) => path === named('card.jpg'))).toBe(false);
  });

  it('fills in titles, descriptions and keywords', async () => {
    writeFileSync(
      join(cwd, 'credits.csv'),
      'image;title;keywords;creator\ncard.jpg;A kite over the dunes;kite,dunes;A. Gull\n'.replace(
        'kite,dunes',
        '"kite;dunes"',
      ),
    );
    const { files, variants } = await runJson<Manifest>(
      ['refit', '--out', 'credited', '--credits', 'credits.csv'],
      { cwd },
    );
    const cards = [...files, ...variants].filter(({ path }) => path.includes('card'));
    expect(cards).toHaveLength(4);
    for (const { path } of cards)
      expect(readCredit(read(`credited/${path}`))).toMatchObject({
        ...{ title: 'A kite over the dunes', keywords: ['kite', 'dunes'], creator: 'A. Gull' },
      });
    const hero = files.find(({ path }) => path.includes('IMG_0042'))!;
    expect(readCredit(read(`credited/${hero.path}`)).title).toBeNull();
    expect(read(`credited/${hero.path}`).equals(read('new/img/IMG_0042.avif'))).toBe(true);
  });

  it.each([
    [
      'rename',
      'old,new\ncard.jpg,a\nnowhere.jpg,b\n',
      'list.csv, line 3, column old: there is no image "nowhere.jpg"',
    ],
    [
      'rename',
      'old,new\ncard.jpg,a\ncard.jpg,b\n',
      'list.csv, line 3, column old: "card.jpg" is already in line 2',
    ],
    [
      'rename',
      'old,new\ncard.jpg,a\nimg/card.jpg,b\n',
      'line 3, column old: "img/card.jpg" is the same image as "card.jpg"',
    ],
    [
      'rename',
      'old,new\ncard.jpg,../../card\n',
      'line 2, column new: "../../card" is not a usable file name',
    ],
    ['rename', 'old,neu\ncard.jpg,a\n', 'line 1: there is no column new'],
    ['credits', 'image,title\n,a\n', 'line 2, column image: no image is named'],
    [
      'credits',
      'image,colour\ncard.jpg,a\n',
      'line 1: there is no column title, description or keywords',
    ],
  ])('says what is wrong with a list of %s, and where', async (option, text, message) => {
    writeFileSync(join(cwd, 'list.csv'), text);
    const told = await run(['refit', '--out', 'never', `--${option}`, 'list.csv'], { cwd });
    expect([told.status, told.stderr]).toEqual([2, expect.stringContaining(message)]);
    expect(readdirSync(cwd)).not.toContain('never');
  });

  it('joins small images into one sheet that shows each', async () => {
    const { sheets, ...manifest } = await runJson<Manifest & { sheets: { path: string }[] }>(
      ['refit', '--out', 'joined', '--sheet', '/'],
      { cwd },
    );
    expect(schemaErrors('refit', { ...manifest, sheets })).toEqual([]);
    expect(sheets.map(({ path }) => path).sort()).toEqual(
      ['.css', '.html', '.json', '.png', '.webp', '@2x.png', '@2x.webp'].map(
        (end) => `sheets/front${end}`,
      ),
    );
    const css = read('joined/sheets/front.css').toString();
    const sheet = await sharp(read('joined/sheets/front@2x.webp'))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const single = await sharp(read('joined/sheets/front.png')).metadata();
    expect(sheet.info.width).toBe(single.width * 2);
    for (const [name, colour] of [
      ['sail', [0xe4, 0x57, 0x2e]],
      ['knot', [0x17, 0x63, 0x7a]],
    ] as const) {
      const [, x, y] = new RegExp(`front-${name} .*position: (-?\\d+)px (-?\\d+)px`).exec(css)!;
      // The middle of the sail, 20 px from the left and 12 from the top of its icon.
      const [left, top] = [2 * (20 - Number(x)), 2 * (12 - Number(y))];
      const at = (top * sheet.info.width + left) * 4;
      expect([...sheet.data.subarray(at, at + 3)]).toEqual(colour);
    }
    const told = JSON.parse(read('joined/sheets/front.json').toString()) as { style: string };
    expect(schemaErrors('sheet', told)).toEqual([]);
    expect(told.style).toBe('sheets/front.css');
    const page = load(read('joined/sheets/front.html').toString());
    expect(page('.front-sail').attr('aria-label')).toBe('Sail');
    expect(page('.front-knot').attr('aria-hidden')).toBe('true');
    const none = await run(['refit', '--out', 'none', '--sheet', '/elsewhere'], { cwd });
    expect([none.status, none.stderr]).toEqual([2, expect.stringContaining('no such page group')]);
  });
});
