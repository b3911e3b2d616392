import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { harErrors } from '../support/har.js';
import { run, runJson } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import { delayedSite } from '../support/delayed-site.js';
import type { ClockDocument } from '../support/delayed-site.js';
import type { Answer } from '../support/server.js';

describe('clock', () => {
  it('keeps a HAR file that an independent schema accepts', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve(await delayedSite());
    const { harFile, requests } = await runJson<ClockDocument>(
      ['clock', `${origin}/`, '--runs', '1', '--network', 'none'],
      { cwd },
    );
    const har = JSON.parse(readFileSync(join(cwd, harFile), 'utf8')) as {
      log: { entries: { time: number; timings: Record<string, number> }[] };
    };
    expect(harErrors(har)).toEqual([]);
    expect(har.log.entries).toHaveLength(requests.length);
    for (const { time, timings } of har.log.entries) {
      const parts = ['blocked', 'dns', 'connect', 'send', 'wait', 'receive'];
      const sum = parts.reduce((all, part) => all + Math.max(0, timings[part] ?? 0), 0);
      expect(Math.abs(sum - time)).toBeLessThan(0.01);
    }
  });

  it('draws what it recorded again from its HAR file, into files and as CSV', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve(await delayedSite());
    const loaded = await runJson<ClockDocument>(
      ['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--svg', 'live.svg'],
      { cwd },
    );
    const read = await runJson<ClockDocument>(
      ['clock', '--har', loaded.harFile, '--svg', 'read.svg', '--png', 'read.png'],
      { cwd },
    );
    expect(schemaErrors('clock', read)).toEqual([]);
    expect(read.requests).toEqual(loaded.requests);
    expect(read.median).toEqual(loaded.median);
    expect(read.findings).toEqual(loaded.findings);
    const picture = (name: string) => readFileSync(join(cwd, name));
    expect(picture('read.svg')).toEqual(picture('live.svg'));
    expect(await sharp(picture('read.png')).metadata()).toMatchObject({
      format: 'png',
      width: 1280,
    });

    const only = ['--only', 'image', '--sort', 'bytes', '--top', '1'];
    const text = await run(['clock', '--har', loaded.harFile, ...only], { cwd });
    expect(text.stdout).toMatch(/\d more requests with/);
    const csv = await run(['clock', '--har', loaded.harFile, ...only, '--csv'], { cwd });
    const lines = csv.stdout.trim().split('\r\n');
    expect(lines).toHaveLength(1 + read.requests.filter(({ type }) => type === 'image').length);
    expect(lines[0]).toMatch(/^page,url,type,status,start,blocked,dns,/);
  });

  it('says what is wrong with a HAR file, and where', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'cut.har': '{"log":{\n"entries":[{"time":',
      'other.har': '{"kites":7}',
      'page.har': '<html>',
      'late.har': `{"log":\n{"entries": [1, 2, 3, kites],\n${'"x": 1,'.repeat(9)}}}`,
    });
    const said = async (...values: string[]) => (await run(['clock', ...values], { cwd })).stderr;
    expect(await said('--har', 'cut.har')).toContain('it ends too early, at line 2, column 20');
    expect(await said('--har', 'other.har')).toContain('it has no "log"');
    expect(await said('--har', 'page.har')).toContain('it is not JSON from line 1, column 1');
    expect(await said('--har', 'late.har')).toContain('it is not JSON from line 2, column 23');
    expect(await said('--har', 'none.har')).toContain('there is no file none.har');
    expect(await said('--har', 'cut.har', 'http://a.test/')).toContain('not both');
    expect(await said()).toContain('say which pages to load');
  });

  it('says what is wrong with a page that cannot be loaded', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({ '/': { status: 500, body: 'no' } });
    const failed = await run(['clock', `${origin}/`, '--runs', '1'], { cwd });
    expect(failed).toMatchObject({ status: 3, stdout: '' });
    expect(failed.stderr).toMatch(/could not be loaded: returned 500 .*\[PAGE\]\n$/);
    const nobody = await run(['clock', 'http://127.0.0.1:9/', '--runs', '1'], { cwd });
    expect(nobody.stderr).toMatch(/could not be loaded: .* \[PAGE\]\n$/);
  });
});

describe('compare', () => {
  it('sets two sessions side by side, and refuses what cannot be compared', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(300, 200).jpeg().toBuffer();
    const answers: Record<string, Answer> = {
      '/': { wait: 1_500, body: '<!doctype html><h1>slow</h1><img src="/a.jpg">' },
      '/a.jpg': { type: 'image/jpeg', body: picture },
    };
    const { origin } = await serve(answers);
    const clock = (label: string, ...more: string[]) =>
      runJson(['clock', `${origin}/`, '--runs', '1', '--label', label, ...more], { cwd });
    await clock('before', '--network', 'none');
    answers['/'] = { body: '<!doctype html><h1>fast</h1>' };
    await clock('after', '--network', 'none');
    await clock('elsewhere', '--network', 'dsl');

    const text = await run(['compare', 'before', 'after'], { cwd });
    expect(text.status).toBe(0);
    expect(text.stdout).toMatch(/same conditions · network none/);
    expect(text.stdout).toMatch(/load +\d.* −\d/);
    const document = await runJson<{
      pages: {
        markers: Record<string, { difference: number }>;
        requestCount: { difference: number };
      }[];
    }>(['compare', 'before', 'after'], { cwd });
    expect(schemaErrors('compare', document)).toEqual([]);
    expect(document.pages[0]!.markers['ttfb']!.difference).toBeLessThan(-300);
    expect(document.pages[0]!.requestCount.difference).toBe(-1);

    const { stdout: ticket } = await run(['compare', 'before', 'after', '--markdown'], { cwd });
    expect(ticket).toMatch(/^\| load \|.*\| −\d.* \|$/m);
    const { stdout: numbers } = await run(['compare', 'before', 'after', '--csv'], { cwd });
    expect(numbers).toMatch(/^page,measure,before,after,difference,/);
    expect(numbers).toMatch(/,requests,2,1,-1,-50,/);
    const drawn = await run(
      ['compare', 'before', 'after', '--waterfalls', '--svg', 'both.svg', '--png', 'both.png'],
      { cwd },
    );
    // One axis for both, as long as the slower one.
    const axes = [...drawn.stdout.matchAll(/^ +0 ms .*$/gm)].map(([line]) => line.trim());
    expect(axes).toHaveLength(2);
    expect(axes[0]!.split(/ {2,}/)).toEqual(axes[1]!.split(/ {2,}/));
    expect(readFileSync(join(cwd, 'both.svg'), 'utf8')).toMatch(/>gone<\/text>/);
    expect(await sharp(readFileSync(join(cwd, 'both.png'))).metadata()).toMatchObject({
      width: 1280,
    });
    const elsewhere = await run(['compare', 'before', 'after', '--runs', '3'], { cwd });
    expect(elsewhere.stderr).toContain('this command has no option --runs, though others have');

    const refused = await run(['compare', 'before', 'elsewhere'], { cwd });
    expect(refused.status).toBe(2);
    expect(refused.stderr).toMatch(
      /network none .* \/ dsl \(45 ms.*--anyway \[CONDITIONS_DIFFER\]\n$/,
    );
    const forced = await run(['compare', 'before', 'elsewhere', '--anyway'], { cwd });
    expect(forced.status).toBe(0);
    expect(forced.stdout).toContain('conditions differ: network was none');

    const unknown = await run(['compare', 'before', 'later'], { cwd });
    expect(unknown.status).toBe(2);
    expect(unknown.stderr).toContain('there are: before, after, elsewhere');
  });
});

/** What the published JSON Schemas of HAR say against a document. */
