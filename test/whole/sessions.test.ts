import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph, scene } from '../support/pictures.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

interface ClockSet {
  readonly format: string;
  readonly sessions: readonly {
    readonly session: { readonly page: string; readonly label: string };
    readonly conditions: {
      readonly view: { readonly name: string };
      readonly network: { readonly name: string };
    };
    readonly harFile: string;
  }[];
}

describe('sessions', () => {
  it('of several pages are made under one label, in turn, and compared page by page', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'zealous-lynx.config.yaml':
        'networks:\n  - { name: harbour-wifi, latency: 10, down: 9000, up: 900 }\n',
    });
    const { origin, asked } = await serve({
      '/one': { body: '<!doctype html><h1>one</h1>' },
      '/two': { body: '<!doctype html><h1>two</h1>' },
    });
    const clock = (label: string) =>
      runJson<ClockSet>(
        [
          'clock',
          `${origin}/one`,
          `${origin}/two`,
          '--runs',
          '2',
          '--label',
          label,
          '--view',
          'laptop',
          '--network',
          'harbour-wifi',
        ],
        { cwd },
      );
    const set = await clock('first');
    expect(schemaErrors('clock-set', set)).toEqual([]);
    expect(set.sessions.map(({ session }) => session.page)).toEqual([
      `${origin}/one`,
      `${origin}/two`,
    ]);
    expect(set.sessions[0]!.conditions).toMatchObject({
      view: { name: 'laptop' },
      network: { name: 'harbour-wifi' },
    });
    for (const { harFile } of set.sessions) expect(existsSync(join(cwd, harFile))).toBe(true);
    const pages = asked.filter((path) => path !== '/favicon.ico');
    expect(pages).toEqual(['/one', '/two', '/one', '/two', '/one', '/two']);

    await clock('second');
    const { stdout } = await run(['compare', 'first', 'second'], { cwd });
    expect(stdout).toContain(`${origin}/one`);
    expect(stdout).toContain(`${origin}/two`);
  });

  it('keep the loads that were done when they are stopped', async () => {
    const cwd = temporaryFolder();
    const { origin, asked } = await serve({
      '/': { body: '<!doctype html><h1>x</h1>', wait: 300 },
    });
    const child = start(
      ['clock', `${origin}/`, '--runs', '50', '--network', 'none', '--label', 'cut'],
      { cwd },
    );
    const ended = outcomeOf(child);
    while (asked.filter((path) => path === '/').length < 4)
      await new Promise((resolve) => setTimeout(resolve, 50));
    child.kill('SIGTERM');
    const { status, stdout } = await ended;
    expect(status).toBe(130);
    expect(stdout).toMatch(/cut: .*, [2-9] cold loads/);
    expect((await run(['compare', 'cut', 'cut'], { cwd })).status).toBe(0);
  });
});

describe('a refit that was broken off', () => {
  it('is completed by the next one, which knows its own files', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'site/index.html': '<img src="a.jpg" width="50"><img src="b/a.png" width="50">',
      'site/a.jpg': await scene(400, 300).jpeg({ quality: 95 }).toBuffer(),
      'site/b/a.png': await photograph(300, 300, 5).png().toBuffer(),
    });
    await run(['survey', 'site', ...oneView], { cwd });
    const first = await runJson<{ files: { path: string }[]; variants: unknown[] }>(
      ['refit', '--out', 'new'],
      { cwd },
    );
    expect(first.files).toHaveLength(2);
    rmSync(join(cwd, 'new', first.files[0]!.path));
    const second = await runJson<{ unchanged: number }>(['refit', '--out', 'new'], { cwd });
    expect(second.unchanged).toBe(1 + first.variants.length);
    for (const { path } of first.files) expect(existsSync(join(cwd, 'new', path))).toBe(true);
  });

  it('leaves alone what stands in the document, and keeps paths free of it', async () => {
    const cwd = temporaryFolder();
    const inline = await photograph(300, 200, 9).png().toBuffer();
    writeFiles(cwd, {
      'site/index.html': `<img src="img/a.jpg" width="50"><img src="data:image/png;base64,${inline.toString('base64')}" width="30">`,
      'site/img/a.jpg': await photograph(400, 300).jpeg().toBuffer(),
    });
    await run(['survey', 'site', ...oneView], { cwd });
    const { files, kept } = await runJson<{
      files: { path: string }[];
      kept: { url: string; reason: string }[];
    }>(['refit', '--out', 'new'], { cwd });
    expect(files.map(({ path }) => path.replace(/\.\w+$/, ''))).toEqual(['img/a']);
    expect(kept.map(({ reason }) => reason)).toEqual([
      'it is embedded in the document that shows it',
    ]);
  });

  it('gives two originals that differ only in their ending two names', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'zealous-lynx.config.yaml': 'policy: { formats: [webp], similarity: 0.9 }\n',
      'site/index.html': '<img src="a.jpg" width="50"><img src="a.png" width="50">',
      'site/a.jpg': await photograph(400, 300).jpeg().toBuffer(),
      'site/a.png': await photograph(300, 300, 5).png().toBuffer(),
    });
    await run(['survey', 'site', ...oneView], { cwd });
    const { files } = await runJson<{ files: { path: string; contentHash: string }[] }>(
      ['refit', '--out', 'new'],
      { cwd },
    );
    const [one, other] = files;
    expect(one!.path).toBe('a.webp');
    expect(other!.path).toMatch(/^a-[\da-f]{8}\.webp$/);
  });
});
