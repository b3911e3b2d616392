import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gzipSync } from 'node:zlib';
import { parse } from 'csv-parse/sync';
import { run, runJson, twoViews } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { drawing, photograph, scene } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface Portion {
  readonly sentBytes: number;
  readonly wasteBytes: number;
  readonly causes: Readonly<Record<string, number>>;
}
interface RankDocument {
  readonly weights: { readonly visitsAMonth: number | null };
  readonly totals: { readonly wasteBytes: number };
  readonly perVisit: Portion;
  readonly rows: readonly {
    readonly key: string;
    readonly files: number;
    readonly pages: number;
    readonly perVisit: Portion;
    readonly family: { readonly slot: string; readonly sizes: string } | null;
  }[];
  readonly images: readonly {
    readonly url: string;
    readonly bytes: number;
    readonly neededBytes: number | null;
    readonly wasteBytes: number | null;
    readonly causes: Readonly<Record<string, number>>;
    readonly allowed: readonly { readonly reason: string }[];
    readonly perVisit: Portion;
  }[];
  readonly unmatchedRules: readonly { readonly reason: string }[];
}

const head =
  '<meta name="viewport" content="width=device-width, initial-scale=1"><style>body{margin:0}img{display:block}</style>';
const page = (body: string) => ({
  type: 'text/html',
  body: `<!doctype html><title>t</title>${head}${body}`,
});
const vector = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${'<path d="M0 0h9v9z"/>'.repeat(60)}</svg>`;

let cwd: string;
let photo: Buffer;
let mapped: string[];

/** Four articles with a picture of their own in one slot, a start page, a picture of somebody else. */
beforeAll(async () => {
  cwd = temporaryFolder(afterAll);
  photo = await scene(1200, 800).jpeg({ quality: 95 }).toBuffer();
  const articles = [1, 2, 3, 4];
  const pictures = await Promise.all(
    articles.map((seed) => photograph(900, 600, seed).jpeg({ quality: 95 }).toBuffer()),
  );
  const { address } = await serve(
    {
      '//kites.test/': page(
        `${articles.map((at) => `<a href="/article/${at}/">x</a>`).join('')}
       <img id="lead" src="/lead.jpg" width="300" height="200"><img src="/mark.svg" width="40" height="40">
       <img src="/small.svg" width="40" height="40">
       <div style="display:none"><img src="/hidden.png" width="10" height="10"></div>
       <img src="//ads.test/banner.jpg" width="300" height="200">`,
      ),
      ...Object.fromEntries<Answer>(
        articles.flatMap((at): [string, Answer][] => [
          [
            `//kites.test/article/${at}/`,
            page(
              `<main><p>Article ${at}<figure style="margin:0"><img src="/article/${at}.jpg" style="width:100%;max-width:600px"></figure></main>`,
            ),
          ],
          [`//kites.test/article/${at}.jpg`, { type: 'image/jpeg', body: pictures[at - 1]! }],
        ]),
      ),
      '//kites.test/lead.jpg': { type: 'image/jpeg', body: photo },
      '//kites.test/mark.svg': { type: 'image/svg+xml', body: vector },
      '//kites.test/small.svg': {
        type: 'image/svg+xml',
        body: gzipSync(vector.replaceAll('9', '8')),
        headers: { 'content-encoding': 'gzip' },
      },
      '//kites.test/hidden.png': {
        type: 'image/png',
        body: await drawing(40, 40).png().toBuffer(),
      },
      '//ads.test/banner.jpg': {
        type: 'image/jpeg',
        body: await photograph(800, 500, 9).jpeg().toBuffer(),
      },
    },
    afterAll,
  );
  mapped = ['--map-host', `*.test=${address}`];
  writeFiles(cwd, {
    'pages.csv': 'address,visits\nhttp://kites.test/,900\nhttp://kites.test/article/1/,100\n',
  });
  await run(['survey', 'http://kites.test/', '--label', 'plain', ...mapped, ...twoViews], { cwd });
  await run(
    ['survey', '--list', 'pages.csv', '--depth', '0', '--label', 'visits', ...mapped, ...twoViews],
    { cwd },
  );
}, 120_000);

const ranked = (...values: string[]) =>
  runJson<RankDocument>(['rank', '--survey', 'plain', '--top', '100', ...values], { cwd });

describe('rank', () => {
  it('puts the slots of one template into one row, with the sizes that they want', async () => {
    const { rows } = await ranked();
    const articles = rows.find(({ family }) => family?.slot.includes('figure > img'))!;
    expect(articles).toMatchObject({ files: 4, pages: 4 });
    expect(articles.family!.sizes).toBe('(max-width: 600px) 100vw, 600px');
  });

  it('books what was hidden, what was sent uncompressed, and what is somebody else’s', async () => {
    const { images } = await ranked();
    const image = (name: string) => images.find(({ url }) => url.endsWith(name))!;
    const hidden = image('hidden.png');
    expect(hidden.causes['neverShown']).toBe(hidden.bytes);
    const mark = image('mark.svg');
    expect(mark).toMatchObject({ bytes: vector.length, wasteBytes: mark.causes['wire'] });
    expect(mark.neededBytes).toBeLessThan(vector.length / 5);
    expect(image('small.svg').wasteBytes).toBe(0);
    const { rows } = await ranked('--by', 'host', '--where', 'party=third');
    expect(rows.map(({ key }) => key)).toEqual(['ads.test']);
  });

  it('weighs pages by their visits, unless it is told not to', async () => {
    const of = (...values: string[]) =>
      runJson<RankDocument>(['rank', '--survey', 'visits', '--by', 'page', ...values], { cwd });
    const weighed = await of();
    expect(weighed.weights.visitsAMonth).toBe(1000);
    const start = (document: RankDocument) =>
      document.rows.find(({ key }) => key === 'http://kites.test/')!.perVisit.sentBytes;
    expect(start(weighed) / start(await of('--unweighted'))).toBeCloseTo(0.9 / 0.5, 2);
    const { stdout } = await run(['rank', '--survey', 'visits'], { cwd });
    expect(stdout).toMatch(/In 1,000 visits a month that is .* of waste/);
  });

  it('looks at one page, one view, one cause, when it is asked to', async () => {
    const lead = await ranked('--page', '/', '--where', 'view=laptop', '--where', 'type=jpeg');
    expect(lead.images.map(({ url }) => url.split('/').at(-1)).sort()).toEqual([
      'banner.jpg',
      'lead.jpg',
    ]);
    // Of visits to that page in that view every one is sent the whole file.
    const sent = lead.images.find(({ url }) => url.endsWith('lead.jpg'))!.perVisit.sentBytes;
    expect(sent).toBe(photo.length);
    const { rows } = await ranked('--by', 'image', '--where', 'cause=neverShown');
    expect(rows).toHaveLength(1);
  });

  it('narrows all that it prints, says so where nothing matches, and takes the names that people use', async () => {
    const jpegs = await runJson<RankDocument>(
      ['rank', '--by', 'image', '--where', 'type=jpg', '--view', 'phone'],
      { cwd },
    );
    expect(jpegs.images.length).toBeGreaterThan(0);
    for (const { url } of jpegs.images) expect(url).toMatch(/jpg/);
    const sum = jpegs.images.reduce((all, { wasteBytes }) => all + (wasteBytes ?? 0), 0);
    expect(jpegs.totals.wasteBytes).toBe(sum);
    const none = await run(['rank', '--where', 'type=avif', '--where', 'finding=too-few-pixels'], {
      cwd,
    });
    expect(none.status).toBe(0);
    expect(none.stdout).toContain('Nothing matches type=avif, finding=too-few-pixels.');
    expect(none.stdout).toContain(': 0 image files');
    expect(none.stdout).not.toContain('Also found');
  });

  it('prints CSV that a spreadsheet reads, and Markdown', async () => {
    const csv = await run(['rank', '--survey', 'plain', '--by', 'image', '--csv'], { cwd });
    const records = parse<Record<string, string>>(csv.stdout, { columns: true });
    const { rows } = await ranked('--by', 'image');
    expect(records.map(({ wasteBytes }) => Number(wasteBytes))).toEqual(
      rows.map(({ perVisit }) => perVisit.wasteBytes),
    );
    const markdown = await run(['rank', '--survey', 'plain', '--markdown'], { cwd });
    expect(markdown.stdout).toMatch(/^An average visit is sent .*\n\n\| slot \| where \|/);
  });

  it.each([
    [['--where', 'colour=red'], /there are|--where colour=red: expected a known name/],
    [['--where', 'cause=pixel'], /expected one of neverShown, duplicate/],
    [['--where', 'bytes=many'], /expected bytes, like 100000 or 100k/],
    [['--csv', '--json'], /only one form of output can be printed/],
    [['--by', 'colour'], /--by: expected one of family, image/],
  ])('refuses %j with what is allowed', async (values, words) => {
    const { status, stderr } = await run(['rank', ...values], { cwd });
    expect(status).toBe(2);
    expect(stderr).toMatch(words);
  });

  it('lets pictures be more than they need where the policy says why', async () => {
    const policy = (rules: string) =>
      writeFiles(cwd, { 'rules.yaml': `policy:\n  rules:\n${rules}` });
    policy(`    - { address: '/lead.jpg', exempt: true, reason: 'the sponsor gave it' }
    - { selector: '*figure > img', zoom: 1.2, reason: 'readers look closely' }
    - { group: 'none', minimum: 800, reason: 'left over' }\n`);
    const { images, unmatchedRules } = await ranked('--config', 'rules.yaml');
    const lead = images.find(({ url }) => url.endsWith('lead.jpg'))!;
    expect(lead).toMatchObject({ wasteBytes: 0, allowed: [{ reason: 'the sponsor gave it' }] });
    expect(unmatchedRules.map(({ reason }) => reason)).toEqual(['left over']);
    const told = await run(['explain', '/article/1.jpg', '--config', 'rules.yaml'], { cwd });
    expect(told.stdout).toContain('1.2 times its need: readers look closely');
    policy(`    - { address: '/lead.jpg', zom: 2, reason: 'x' }\n`);
    const wrong = await run(['rank', '--config', 'rules.yaml'], { cwd });
    expect([wrong.status, wrong.stderr]).toEqual([
      2,
      expect.stringMatching(/policy\.rules\[0\].*there is no zom/),
    ]);
  });

  it('encodes nothing again when nothing has changed', async () => {
    const { stderr } = await run(
      ['survey', 'http://kites.test/', '--label', 'again', ...mapped, ...twoViews],
      { cwd },
    );
    expect(stderr).not.toContain('encoding images');
    const again = await runJson<RankDocument>(['rank', '--survey', 'again'], { cwd });
    expect(again.perVisit).toEqual((await ranked()).perVisit);
  });
});
