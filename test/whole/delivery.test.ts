import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import subsetFont from 'subset-font';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson, twoViews } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface FindingsDocument {
  readonly findings: readonly {
    readonly id: string;
    readonly about: string;
    readonly count: number;
    readonly pages: number;
    readonly bytesPerVisit: number | null;
    readonly worst: string;
  }[];
}

interface FilesDocument {
  readonly finding: {
    readonly files: readonly {
      readonly url: string;
      readonly message: string;
      readonly pages: number;
      readonly bytesPerVisit: number | null;
      readonly data: Readonly<Record<string, unknown>>;
    }[];
  };
}

const rules = Array.from(
  { length: 120 },
  (_, at) =>
    // Comments that hardly compress.
    `/* ${createHash('sha256').update(String(at)).digest('hex')} */\n.kite-${at * 7919} {\n    margin-left: ${at}px;\n}\n`,
).join('\n');
const minified = Array.from(
  { length: 120 },
  (_, at) => `.kite-${at * 7919}{margin-left:${at}px}`,
).join('');
const script = 'document.documentElement.dataset.kite = "up";';
const embedded = `body{background:url("data:image/png;base64,${'A'.repeat(9_000)}")}`;
const kept = { 'cache-control': 'max-age=31536000, immutable' };
const zipped = (text: string, type: string): Answer => ({
  type,
  body: gzipSync(text, { level: 9 }),
  headers: { ...kept, 'content-encoding': 'gzip' },
});

const font = readFileSync('/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf');
const letters = 'Kites more';
const [woff, woff2] = await Promise.all(
  (['woff', 'woff2'] as const).map((targetFormat) => subsetFont(font, letters, { targetFormat })),
);
const checked = { etag: '"1"' };

/** Sites that differ in nothing but the faults. */
const faulty = {
  '/': {
    body: `<!doctype html><title>t</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/plain.css"><link rel="stylesheet" href="/embedded.css"><script src="/block.js"></script><script src="/copy.js" defer></script><script src="/gone.js" defer></script><p style="font-family:kite">Kites<a href="/more">more</a>`,
  },
  '/more': {
    body: `<!doctype html><title>m</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/plain.css"><p>More`,
  },
  '/plain.css': {
    type: 'text/css',
    body: `@font-face{font-family:kite;src:url(/kite.woff)}\n${rules}`,
  },
  '/embedded.css': zipped(embedded, 'text/css'),
  '/block.js': zipped(script, 'text/javascript'),
  '/copy.js': zipped(script, 'text/javascript'),
  '/kite.woff': { type: 'font/woff', body: woff!, headers: kept },
} satisfies Record<string, Answer>;

const sound = {
  '/': {
    body: `<!doctype html><title>t</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/plain.css"><script src="/block.js" defer></script><p style="font-family:kite">Kites<a href="/more">more</a>`,
    headers: checked,
  },
  '/more': { ...faulty['/more'], headers: checked },
  '/plain.css': zipped(
    `@font-face{font-family:kite;font-display:swap;src:url(/kite.woff2)}p{margin:0}`,
    'text/css',
  ),
  '/block.js': zipped(script, 'text/javascript'),
  '/kite.woff2': { type: 'font/woff2', body: woff2!, headers: kept },
} satisfies Record<string, Answer>;

async function findingsOf(answers: Readonly<Record<string, Answer>>) {
  const cwd = temporaryFolder();
  const { origin } = await serve(answers);
  await run(['survey', `${origin}/`, ...twoViews], { cwd });
  const document = await runJson<FindingsDocument>(['rank', '--by', 'finding'], { cwd });
  expect(schemaErrors('findings', document)).toEqual([]);
  const explained = async (id: string) => {
    const told = await runJson<FilesDocument>(['explain', id], { cwd });
    expect(schemaErrors('explain', told)).toEqual([]);
    return told.finding.files.map((file) => ({ ...file, url: file.url.slice(origin.length) }));
  };
  return { cwd, origin, findings: document.findings, explained };
}

describe('files that are no images', () => {
  it('have the findings that were built into them, with the bytes that they cost', async () => {
    const { cwd, origin, findings, explained } = await findingsOf(faulty);
    expect(findings.map(({ id }) => id).sort()).toEqual([
      'blocking-script',
      'embedded-data',
      'failed-file',
      'hidden-text',
      'no-validator',
      'old-font',
      'old-protocol',
      'several-copies',
      'short-lifetime',
      'uncompressed-text',
      'unminified-text',
      'unused-style',
    ]);
    const plain = Buffer.from(faulty['/plain.css'].body);
    const gzipBytes = gzipSync(plain, { level: 9 }).length;
    const brotliBytes = brotliCompressSync(plain, {
      params: { [constants.BROTLI_PARAM_QUALITY]: 5, [constants.BROTLI_PARAM_MODE]: 1 },
    }).length;
    const [uncompressed, ...others] = await explained('uncompressed-text');
    expect(others).toEqual([]);
    expect(uncompressed).toMatchObject({
      url: '/plain.css',
      pages: 2,
      data: { encoding: 'identity', gzipBytes },
    });
    const wireBytes = uncompressed!.data['wireBytes'] as number;
    expect(Math.abs(wireBytes - plain.length)).toBeLessThan(50);
    expect(Math.abs((uncompressed!.data['brotliBytes'] as number) - brotliBytes)).toBeLessThan(40);
    // Both pages are sent it, in every visit.
    expect(uncompressed!.bytesPerVisit).toBe(
      wireBytes - Math.min(gzipBytes, uncompressed!.data['brotliBytes'] as number),
    );
    const [unminified] = await explained('unminified-text');
    expect(unminified!.data).toMatchObject({ textBytes: plain.length, gzipBytes });
    const smaller = unminified!.data['minifiedBytes'] as number;
    expect(Math.abs(smaller - minified.length)).toBeLessThan(80);
    expect(await explained('failed-file')).toMatchObject([
      { url: '/gone.js', pages: 1, data: { status: 404 } },
    ]);
    expect(await explained('several-copies')).toMatchObject([
      { data: { same: `${origin}/block.js` }, url: '/copy.js' },
    ]);
    expect(await explained('blocking-script')).toMatchObject([{ url: '/block.js', pages: 1 }]);
    expect(await explained('embedded-data')).toMatchObject([
      { url: '/embedded.css', data: { count: 1, blocks: true } },
    ]);
    expect(await explained('old-font')).toMatchObject([
      {
        url: '/kite.woff',
        data: { format: 'WOFF', woff2Bytes: woff2!.length },
        bytesPerVisit: Math.round((woff!.length - woff2!.length) / 2),
      },
    ]);
    expect(await explained('short-lifetime')).toMatchObject([
      { url: '/plain.css', data: { seconds: null, hasValidator: false } },
    ]);

    const { worklist } = await runJson<{ worklist: { who: string; what: string; url: string }[] }>(
      ['refit', '--out', 'new'],
      { cwd },
    );
    expect(worklist[0]).toMatchObject({
      ...{ who: 'server', what: 'send it compressed', url: `${origin}/plain.css` },
    });
    expect(new Set(worklist.map(({ url }) => new URL(url).pathname))).toEqual(
      new Set(
        ['/', '/more', '/plain.css', '/embedded.css', '/gone.js', '/copy.js', '/block.js'].concat(
          '/kite.woff',
        ),
      ),
    );

    // What to write stands in the ticket as it is written.
    const tickets = readFileSync(join(cwd, 'new', 'tickets.md'), 'utf8');
    const written = `<script src="${origin}/block.js" defer></script>`;
    expect(tickets).toContain(`\n\`\`\`html\n${written}\n\`\`\``);
    const block = await run(['explain', 'blocking-script'], { cwd });
    expect(block.stdout).toContain(`      ${written}\n`);

    const page = await run(['explain', '/more'], { cwd });
    expect(page.stdout).toMatch(
      /put together and sent\n {2}\/plain\.css \(saves a visit to this page .*\)/,
    );
    expect(page.stdout).not.toContain('/block.js');
    const narrowed = await runJson<FindingsDocument>(
      ['rank', '--by', 'finding', '--page', '/more'],
      { cwd },
    );
    expect(narrowed.findings.map(({ id }) => id)).not.toContain('blocking-script');
    const file = await run(['explain', 'plain.css'], { cwd });
    expect(file.stdout).toContain(`gzip makes`);
    expect(file.stdout).toContain('On 2 pages of');
    expect(file.stdout).toContain('is not minified');
    const told = await runJson<{ file: { pages: string[]; perVisit: number } }>(
      ['explain', `${origin}/block.js`],
      { cwd },
    );
    expect(schemaErrors('explain', told)).toEqual([]);
    expect(told.file.pages).toEqual([`${origin}/`]);
    expect(told.file.perVisit).toBeCloseTo(0.5);
    const byPages = await runJson<FindingsDocument>(
      ['rank', '--by', 'finding', '--sort', 'pages'],
      { cwd },
    );
    const counts = byPages.findings.map(({ pages }) => pages);
    expect(counts).toEqual(counts.toSorted((a, b) => b - a));
    const chosen = ['--where', 'finding=old-font', '--where', 'finding=nameless'];
    const only = await runJson<FindingsDocument>(['rank', '--by', 'finding', ...chosen], { cwd });
    expect(only.findings.map(({ id }) => id)).toEqual(['old-font']);
    const refused = await run(['rank', '--where', 'finding=old-font'], { cwd });
    expect(refused.status).toBe(2);
    expect(refused.stderr).toContain('zealous-lynx explain old-font lists the files');
    const table = await run(['rank', '--by', 'finding'], { cwd });
    expect(table.stdout).toContain('Next: zealous-lynx explain uncompressed-text lists');
    const named = await run(['rank', '--by', 'finding', '--survey', 'survey-1'], { cwd });
    expect(named.stdout).toContain(`explain uncompressed-text --survey survey-1 lists`);
    const csv = await run(['rank', '--by', 'finding', '--csv'], { cwd });
    expect(csv.stdout.split('\r\n')[0]).toBe(
      'finding,title,doer,about,count,pages,bytesPerVisit,timePerVisit,worst',
    );
  });

  it('of images, too: their cookies, and vectors that are not minified', async () => {
    const cookie = 'k'.repeat(200);
    const shape = (at: number) =>
      `<path id="${createHash('sha256').update(String(at)).digest('hex')}" fill="#ff0000"   d="M ${at}.000000 0.000000 L 9.000000 9.000000 Z"/>`;
    const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90">\n<!-- ${rules} -->\n${Array.from({ length: 40 }, (_, at) => shape(at)).join('\n')}</svg>`;
    const { explained } = await findingsOf({
      '/': {
        body: '<!doctype html><title>t</title><link rel="icon" href="data:,"><img src="/kite.svg" alt="" width="90" height="90">',
        headers: { ...checked, 'set-cookie': `visitor=${cookie}` },
      },
      '/kite.svg': zipped(drawing, 'image/svg+xml'),
    });
    const [cookies] = await explained('cookies-on-files');
    // The name, the sign and the value; the second view has what the first was given.
    expect(cookies).toMatchObject({ url: '/kite.svg', data: { cookieBytes: 208 } });
    const [vector] = await explained('unminified-text');
    expect(vector).toMatchObject({ url: '/kite.svg', data: { textBytes: drawing.length } });
    expect(vector!.data['minifiedBytes']).toBeLessThan(drawing.length / 2);
  });

  it('have none of them when the faults are mended', async () => {
    const { findings } = await findingsOf(sound);
    expect(findings).toEqual([]);
  });
});
