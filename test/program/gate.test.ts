import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, afterAll, describe, expect, it } from 'vitest';
import { validateXML } from 'xmllint-wasm';
import { defaultViews } from '../../src/core/visitors/view.js';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';

interface GateDocument {
  readonly holds: boolean;
  readonly judgements: readonly {
    readonly budget: { readonly name: string; readonly measure: string };
    readonly verdict: string;
    readonly value: number;
    readonly allowed: number;
    readonly subject: { readonly page: string | null };
    readonly since: { readonly label: string } | null;
    readonly culprit: {
      readonly url: string;
      readonly placement: { readonly selector: string } | null;
    } | null;
    readonly command: string;
  }[];
}

interface HistoryDocument {
  readonly surveys: readonly {
    readonly survey: { readonly label: string };
    readonly perVisit: { readonly bytes: number; readonly wasteBytes: number };
  }[];
  readonly series: readonly { readonly key: string; readonly points: readonly object[] }[];
  readonly moved: {
    readonly total: { readonly change: number };
    readonly files: readonly {
      readonly key: string;
      readonly change: number;
      readonly reasons: readonly { readonly reason: string }[];
    }[];
    readonly pages: readonly { readonly change: number }[];
    readonly parties: readonly { readonly change: number }[];
  };
}

const page = (body: string) =>
  `<!doctype html><html lang="en"><title>Kites</title><main>${body}</main></html>`;
const kite = '<img src="kite.jpg" width="200" height="100" alt="A kite">';

/** The folder of a site that was surveyed as it was, and again after somebody has uploaded a camera's file. */
let cwd: string;
let upload: Buffer;
const config = () => join(cwd, 'zealous-lynx.config.yaml');

beforeAll(async () => {
  cwd = temporaryFolder(afterAll);
  upload = await photograph(1600, 1200, 7).jpeg({ quality: 95 }).toBuffer();
  writeFiles(cwd, {
    'site/index.html': page(`${kite}<a href="news/">news</a>`),
    'site/kite.jpg': await photograph(400, 200, 1).jpeg().toBuffer(),
    'site/news/index.html': page('<p>No wind today.</p>'),
  });
  await run(['survey', 'site', '--label', 'before', ...oneView], { cwd });
  const { stdout } = await run(['gate', '--suggest'], { cwd });
  writeFileSync(config(), stdout);
  writeFiles(cwd, {
    'site/news/index.html': page(
      '<p>No wind.</p><img id="up" src="DSC_1.jpg" width="300" alt="Up">',
    ),
    'site/news/DSC_1.jpg': upload,
  });
  await run(['survey', '--changed-since', 'before', '--label', 'after'], { cwd });
});

describe('gate', () => {
  it('finds what it has suggested to hold', async () => {
    const { status, stdout } = await run(['gate', '--survey', 'before'], { cwd });
    expect(stdout).toMatch(/survey before .*\n\d+ budgets hold\./);
    expect(status).toBe(0);
  });

  it('suggests the same to programs', async () => {
    const call = ['gate', '--suggest', '--survey', 'before'];
    const document = await runJson<{ budgets: readonly object[] }>(call, { cwd });
    expect(schemaErrors('suggested-budgets', document)).toEqual([]);
    expect(document.budgets.length).toBeGreaterThan(3);
  });

  it('names the upload, where it stands, since when, and the call that tells more', async () => {
    const { status, stdout } = await run(['gate', '--json'], { cwd });
    expect(status).toBe(1);
    const document = JSON.parse(stdout) as GateDocument;
    expect(schemaErrors('gate', document)).toEqual([]);
    expect(document.holds).toBe(false);
    const broken = document.judgements.filter(({ verdict }) => verdict === 'broken');
    const fresh = broken.find(({ budget }) => budget.measure === 'newImage')!;
    expect(fresh).toMatchObject({
      value: upload.length,
      allowed: 200_000,
      since: { label: 'after' },
      culprit: { url: 'http://site.localhost/news/DSC_1.jpg', placement: { selector: '#up' } },
    });
    // The worst first.
    const excess = broken.map(({ value, allowed }) => value / allowed);
    expect(excess).toEqual(excess.toSorted((a, b) => b - a));
    const [program, ...words] = fresh.command.split(' ');
    expect(program).toBe('zealous-lynx');
    const { stdout: told } = await run(words, { cwd });
    expect(told).toContain('DSC_1.jpg');
  });

  it('says the same to people, to reviewers, to logs, and to build servers', async () => {
    const { stdout } = await run(['gate'], { cwd });
    expect(stdout).toMatch(/✗ heaviest new image since the survey before/);
    expect(stdout).toMatch(/most of it: .*DSC_1\.jpg: .*\(img #up, on \/news\/, in laptop\)/);
    expect(stdout).toMatch(/since after \(\d{4}-\d\d-\d\d\)/);
    const markdown = await run(['gate', '--markdown'], { cwd });
    expect(markdown.status).toBe(1);
    expect(markdown.stdout).toMatch(/^\*\*site\.localhost\*\*: \d+ budgets do not hold/);
    expect(markdown.stdout).toMatch(/\| heaviest new image since the survey before \|/);
    const { stdout: lines } = await run(['gate', '--annotations'], { cwd });
    for (const line of lines.trim().split('\n'))
      expect(line).toMatch(/^zealous-lynx\.config\.yaml: error: /);
    await run(['gate', '--junit', 'results.xml'], { cwd });
    const xml = readFileSync(join(cwd, 'results.xml'), 'utf8');
    const schema = readFileSync(new URL('../fixtures/junit.xsd', import.meta.url), 'utf8');
    const { valid, errors } = await validateXML({
      xml: [{ fileName: 'results.xml', contents: xml }],
      schema: [schema],
    });
    expect(errors).toEqual([]);
    expect(valid).toBe(true);
    expect(xml).toMatch(/<failure message="[^"]+" type="newImage">/);
  });

  it('ends with status 2 where a budget names nothing that exists, and says what there is', async () => {
    const other = 'other.yaml';
    writeFileSync(
      join(cwd, other),
      'budgets:\n  - { measure: bytes, page: /nwes/, most: 1, reason: a test }\n',
    );
    const { status, stdout } = await run(['gate', '--config', other], { cwd });
    expect(status).toBe(2);
    expect(stdout).toMatch(/no page matches \/nwes\/; there are: http:\/\/site\.localhost\//);
    await run(['gate', '--config', other, '--junit', 'none.xml'], { cwd });
    expect(readFileSync(join(cwd, 'none.xml'), 'utf8')).toMatch(/<error message="no page matches/);
  });
});

describe('gate, of a survey that was broken off,', () => {
  it('judges the one before, and says what is missing where there is none', async () => {
    const folder = temporaryFolder();
    const workspace = Workspace.open(join(folder, '.zealous-lynx'));
    const starts = ['http://site.localhost/'];
    const plan = { given: starts, hosts: starts, scope: {} };
    workspace.surveys.begin('broken', new Date().toISOString(), starts, defaultViews, plan);
    workspace.close();
    writeFileSync(
      join(folder, 'zealous-lynx.config.yaml'),
      'budgets:\n  - { measure: bytes, most: 1, reason: a test }\n',
    );
    const { status, stderr } = await run(['gate'], { cwd: folder });
    expect(status).toBe(2);
    expect(stderr).toMatch(/no survey that says anything .*broken was interrupted/);
  });
});

describe('history', () => {
  it('says what moved, adding up to it exactly', async () => {
    const document = await runJson<HistoryDocument>(['history'], { cwd });
    expect(schemaErrors('history', document)).toEqual([]);
    const { surveys, moved } = document;
    expect(surveys.map(({ survey }) => survey.label)).toEqual(['before', 'after']);
    const [before, after] = surveys.map(({ perVisit }) => perVisit.bytes) as [number, number];
    const { total, files, pages, parties } = moved;
    expect(total.change).toBe(after - before);
    for (const parts of [files, pages, parties])
      expect(parts.reduce((sum, { change }) => sum + change, 0)).toBe(total.change);
    expect(files[0]).toMatchObject({
      key: 'http://site.localhost/news/DSC_1.jpg',
      reasons: [{ reason: 'new' }],
    });
    // On one of two pages.
    expect(files[0]!.change).toBeGreaterThan(upload.length / 2);
    expect(files[0]!.change).toBeLessThan(upload.length / 2 + 500);
  });

  it('has the waste of rank', async () => {
    const { surveys } = await runJson<HistoryDocument>(['history'], { cwd });
    const { stdout } = await run(['rank', '--survey', 'after', '--by', 'page', '--csv'], { cwd });
    const [heading, ...rows] = stdout.trim().split(/\r?\n/);
    const at = heading!.split(',').indexOf('wasteBytes');
    const waste = rows.reduce((sum, row) => sum + Number(row.split(',')[at]), 0);
    expect(Math.abs(surveys[1]!.perVisit.wasteBytes - waste)).toBeLessThan(3);
  });

  it('is a text, a table and a picture', async () => {
    const { stdout } = await run(['history', 'before', 'after', '--measure', 'waste'], { cwd });
    expect(stdout).toMatch(/before to after: waste of an average visit \+\d/);
    expect(stdout).toMatch(/waste of a visit +▁?.*█/);
    const csv = await run(['history', '--csv'], { cwd });
    expect(csv.stdout.split('\n')[0]).toMatch(
      /^series,title,source,page,conditions,at,label,value/,
    );
    await run(['history', '--svg', 'over-time.svg'], { cwd });
    expect(readFileSync(join(cwd, 'over-time.svg'), 'utf8')).toMatch(
      /bytes of a visit[^]*polyline/,
    );
    const wrong = await run(['history', 'before', 'never'], { cwd });
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toMatch(/no survey never .*there are: before, after/);
  });

  it('takes what visitors measured beside the loads, and weighs a survey by it', async () => {
    writeFiles(cwd, {
      'visitors.csv':
        'date,page,marker,p75,count\n2026-11-01,http://site.localhost/,load,2100,300\n2026-11-08,http://site.localhost/,load,2000,300\n',
    });
    const { series } = await runJson<HistoryDocument>(['history', '--field', 'visitors.csv'], {
      cwd,
    });
    expect(series.find(({ key }) => key === 'field.load')!.points).toHaveLength(2);
    writeFiles(cwd, {
      'field.yaml':
        "budgets:\n  - { measure: load, from: field, page: '/', most: 1500, reason: a test }\n",
    });
    const { status, stdout } = await run(
      ['gate', '--config', 'field.yaml', '--field', 'visitors.csv'],
      { cwd },
    );
    expect(stdout).toMatch(/2\.00 s, allowed 1\.50 s/);
    expect(status).toBe(1);
  });

  // The last: it takes away what the others look at.
  it('keeps the numbers of surveys that are thinned out', async () => {
    const whole = await runJson<HistoryDocument>(['history'], { cwd });
    const dry = await run(['surveys', 'thin', '--keep', '1', '--dry-run'], { cwd });
    expect(dry.stdout).toMatch(
      /Would be reduced to figures: before\. That would free .* Nothing was taken away/,
    );
    const { status, stdout } = await run(['surveys', 'thin', '--keep', '1'], { cwd });
    expect(status).toBe(0);
    expect(stdout).toMatch(/^before +\S+ \S+ +figures only/m);
    expect(stdout).toMatch(/Reduced to figures: before\. On disk: .* before, .* now\./);
    const after = await runJson<HistoryDocument>(['history'], { cwd });
    expect(after).toEqual({ ...whole, thinned: ['before'] });
    const ranked = await run(['rank', '--survey', 'before'], { cwd });
    expect(ranked.status).toBe(2);
    expect(ranked.stderr).toMatch(/before was thinned out to its figures on \d{4}-\d\d-\d\d/);
    const check = await run(['surveys', 'check'], { cwd });
    expect(check.stdout).toMatch(/The database is sound/);
  });
});
