import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface Item {
  readonly url: string;
  readonly bytes: number;
  readonly perVisit: { readonly sentBytes: number; readonly wasteBytes: number };
}

interface Change {
  readonly before: Item | null;
  readonly after: Item | null;
  readonly by: string | null;
  readonly bytes: number;
  readonly perVisit: number;
}

interface SurveysDocument {
  readonly before: { readonly files: number; readonly perVisit: Item['perVisit'] };
  readonly after: { readonly files: number; readonly perVisit: Item['perVisit'] };
  readonly images: readonly Change[];
  readonly pages: readonly Change[];
}

const large = await photograph(800, 600).jpeg({ quality: 95 }).toBuffer();
const small = await photograph(200, 150).jpeg({ quality: 80 }).toBuffer();
const other = await photograph(120, 90, 7).jpeg().toBuffer();
const third = await photograph(100, 90, 8).jpeg().toBuffer();
const fourth = await photograph(90, 90, 9).jpeg().toBuffer();

const jpeg = (body: Buffer): Answer => ({ type: 'image/jpeg', body });
const page = (...images: string[]): Answer => ({
  body: `<!doctype html><title>t</title><a href="/a">a</a><a href="/b">b</a>${images.map((url) => `<img src="${url}" width="100">`).join('')}`,
});

describe('compare --surveys', () => {
  let cwd = '';
  let origin = '';

  beforeAll(async () => {
    cwd = temporaryFolder(afterAll);
    const answers: Record<string, Answer> = {
      '/': page('/heavy.jpg', '/stays.jpg'),
      '/a': page('/kite.0a1b2c3d4e.jpg', '/gone.jpg'),
      '/b': page('/stays.jpg'),
      '/heavy.jpg': jpeg(large),
      '/stays.jpg': jpeg(other),
      '/kite.0a1b2c3d4e.jpg': jpeg(third),
      '/gone.jpg': jpeg(fourth),
    };
    ({ origin } = await serve(answers, afterAll));
    const survey = (label: string) =>
      runJson(['survey', `${origin}/`, '--label', label, ...oneView], { cwd });
    await survey('old');
    Object.assign(answers, {
      '/a': page('/kite.99ff88ee77.jpg'),
      '/b': { status: 404, body: 'none' },
      '/heavy.jpg': jpeg(small),
      '/kite.99ff88ee77.jpg': jpeg(await photograph(100, 90, 11).jpeg().toBuffer()),
    });
    await survey('new');
  });

  it('tells what an average visit is sent, and what became of each image and page', async () => {
    const document = await runJson<SurveysDocument>(['compare', 'old', 'new', '--surveys'], {
      cwd,
    });
    expect(schemaErrors('compare-surveys', document)).toEqual([]);
    expect([document.before.files, document.after.files]).toEqual([4, 3]);
    const image = (path: string) =>
      document.images.find(({ before, after }) =>
        [before?.url, after?.url].includes(origin + path),
      )!;
    expect(image('/heavy.jpg')).toMatchObject({
      by: 'address',
      bytes: small.length - large.length,
    });
    expect(image('/stays.jpg')).toMatchObject({ by: 'address', bytes: 0 });
    expect(image('/gone.jpg')).toMatchObject({ by: null, after: null, bytes: -fourth.length });
    expect(image('/kite.0a1b2c3d4e.jpg')).toMatchObject({
      by: 'name',
      after: { url: `${origin}/kite.99ff88ee77.jpg` },
    });
    // What the rows changed is what the total changed.
    for (const rows of [document.images, document.pages]) {
      const sum = rows.reduce((all, { perVisit }) => all + perVisit, 0);
      const total = document.after.perVisit.sentBytes - document.before.perVisit.sentBytes;
      expect(Math.abs(sum - total)).toBeLessThanOrEqual(rows.length + 1);
    }
    expect(document.images[0]!.before!.url).toBe(`${origin}/heavy.jpg`);
  });

  it('is meant where both labels are those of surveys, though there are loads of one of them', async () => {
    const clock = ['clock', `${origin}/a`, '--runs', '1', '--network', 'fibre', '--label', 'new'];
    await runJson(clock, { cwd });
    const meant = await runJson<SurveysDocument>(['compare', 'old', 'new'], { cwd });
    expect(meant).toEqual(await runJson(['compare', 'old', 'new', '--surveys'], { cwd }));
    const loads = await runJson<{ format: string }>(['compare', 'new', 'new'], { cwd });
    expect(loads.format).toBe('zealous-lynx.compare/1');
  });

  it('tells it as text, as a ticket and as a table', async () => {
    const said = async (...more: string[]) =>
      (await run(['compare', 'old', 'new', '--surveys', ...more], { cwd })).stdout;
    const text = await said();
    expect(text).toMatch(/image bytes per visit +\d.* −\d/);
    expect(text).toContain('Images: 1 gone, 0 new, 3 changed, 0 the same');
    expect(text).toMatch(/\/gone\.jpg +[\d.]+ kB +gone +−/);
    expect(text).toMatch(/^\/b +[\d.]+ kB +failed +−/m);
    expect(await said('--markdown')).toMatch(/^\| wasted \| .* −.* \|$/m);
    const lines = (await said('--csv')).trim().split('\r\n');
    expect(lines[0]).toMatch(/^what,before,after,matchedBy,/);
    expect(lines).toHaveLength(1 + 4 + 3);
    const drawn = await run(['compare', 'old', 'new', '--surveys', '--png', 'a.png'], { cwd });
    expect(drawn.status).toBe(2);
    expect(drawn.stderr).toContain('--png needs loads, and surveys have none');
    const unknown = await run(['compare', 'old', 'nothing', '--surveys'], { cwd });
    expect(unknown.stderr).toContain('there is no survey nothing');
  });
});
