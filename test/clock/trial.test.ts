import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { describe, expect, it, onTestFinished } from 'vitest';
import { serveArchive } from '../../dist/demo/archive/archive.js';
import { Workspace } from '../../dist/src/store/workspace.js';
import { harErrors } from '../support/har.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answers } from '../support/server.js';

interface Tried {
  readonly page: string;
  readonly recording: string;
  readonly fixes: readonly {
    readonly name: string;
    readonly changed: number;
    readonly notes: readonly string[];
    readonly alone: { readonly bytes: { readonly difference: number } } | null;
  }[];
  readonly bytes: { readonly difference: number; readonly verdict: string };
  readonly requestCount: { readonly difference: number };
  readonly requests: readonly {
    readonly before: Asked | null;
    readonly after: Asked | null;
    readonly bytes: number;
    readonly putOff: boolean;
  }[];
  readonly looks: { readonly similarity: number };
  readonly replay: {
    readonly missing: readonly unknown[];
    readonly unrecorded: readonly { readonly url: string; readonly referrer: string }[];
    readonly alike: readonly { readonly asked: string; readonly given: string }[];
  };
  readonly placements: { readonly moved: readonly { readonly selector: string }[] };
}

interface Asked {
  readonly url: string;
  readonly start: number;
  readonly end: number;
  readonly transferBytes: number;
}

const quick = ['--network', 'none', '--runs', '1', '--most-runs', '1', '--view', 'laptop'];

async function tried(values: readonly string[], cwd: string): Promise<Tried> {
  const document = await runJson<{ pages: readonly Tried[] }>(['trial', ...values, ...quick], {
    cwd,
  });
  expect(schemaErrors('trial', document)).toEqual([]);
  return document.pages[0]!;
}

const home = 'http://bay.test/';
const slow = 400;

/** A page whose answers differ from load to load, and whose server takes its time with one of them. */
async function site(): Promise<Answers> {
  const picture = await photograph(900, 600).jpeg().toBuffer();
  const css = 'img { display: block; width: 300px; height: auto; margin-top: 40px }\n'.repeat(60);
  return {
    '//bay.test/': {
      body: `<!doctype html><html><head><title>Bay</title><link rel="icon" href="data:,">
        <link rel="stylesheet" href="/site.css"><script src="http://tags.drift.test/tag.js"></script></head>
        <body><img src="/kite.jpg"><img src="/slow.jpg"><div style="height: 4500px"></div>
        <img loading="lazy" src="/low.jpg"></body></html>`,
    },
    '/site.css': {
      type: 'text/css',
      body: gzipSync(css),
      headers: { 'content-encoding': 'gzip' },
    },
    '//tags.drift.test/tag.js': {
      type: 'text/javascript',
      body: `new Image().src = '/count.gif?at=' + Date.now() + '&dice=' + Math.random();
        document.documentElement.dataset.dice = Math.random();`,
    },
    '/kite.jpg': { type: 'image/jpeg', body: picture },
    '/low.jpg': { type: 'image/jpeg', body: await photograph(600, 400).jpeg().toBuffer() },
    '/slow.jpg': { type: 'image/jpeg', body: picture, wait: slow },
  };
}

/** The site above on loopback; what is counted on every load has an answer as well. */
async function served() {
  const gif = await sharp({ create: { width: 1, height: 1, channels: 3, background: 'red' } })
    .gif()
    .toBuffer();
  // What is counted has another address each time.
  const known = new Proxy<Answers>(await site(), {
    get: (all, path) =>
      String(path).startsWith('/count.gif') ? { type: 'image/gif', body: gif } : all[String(path)],
  });
  const { address, asked } = await serve(known);
  return { asked, hosts: ['--map-host', `*.test=${address}`] };
}

describe('a trial', () => {
  it('without a fix gives both sides what was recorded, and asks the site for nothing more', async () => {
    const cwd = temporaryFolder();
    const { asked, hosts } = await served();
    const secrets = [
      '--header',
      'bay.test=X-Key: opensesame',
      '--cookie',
      'bay.test=session=opensesame',
    ];
    const result = await tried([home, '--fix', 'none', ...hosts, ...secrets], cwd);
    expect(result).toMatchObject({
      ...{ page: home, fixes: [] },
      bytes: { difference: 0, verdict: 'same' },
      requestCount: { difference: 0 },
      looks: { similarity: 1 },
      placements: { moved: [], unpaired: 0 },
    });
    expect(result.replay.missing).toEqual([]);
    expect(result.replay.unrecorded).toEqual([]);
    // The time goes on during a load, and chance is the same in each: it is the moment that differs.
    const dice = new Set(
      result.replay.alike.map(({ asked: url }) => new URL(url).searchParams.get('dice')),
    );
    expect(dice.size).toBe(1);
    // Once for the recording, and twice for the times of the server; only the recording scrolls.
    const times = (path: string) => [path, asked.filter((one) => one === path).length];
    for (const path of ['/', '/site.css', '/kite.jpg', '/slow.jpg', '/tag.js'])
      expect(times(path)).toEqual([path, 3]);
    expect(times('/low.jpg')).toEqual(['/low.jpg', 1]);
    for (const { before, after } of result.requests) {
      expect(before!.transferBytes).toBe(after!.transferBytes);
      if (before!.url.endsWith('/slow.jpg'))
        expect(Math.min(before!.end - before!.start, after!.end - after!.start)).toBeGreaterThan(
          slow - 5,
        );
    }
    // What the page was asked for with is nowhere.
    const files = readdirSync(join(cwd, '.zealous-lynx'), { recursive: true, withFileTypes: true });
    for (const file of files.filter((one) => one.isFile()))
      expect([
        file.name,
        readFileSync(join(file.parentPath, file.name)).includes('opensesame'),
      ]).toEqual([file.name, false]);
    const har = JSON.parse(readFileSync(join(cwd, result.recording), 'utf8')) as object;
    expect(harErrors(har)).toEqual([]);

    // The recording is enough by itself, and two labels are enough for compare.
    const again = await tried(['--har', result.recording, '--fix', 'none'], cwd);
    expect(again.bytes.difference).toBe(0);
    const pathsOf = ({ requests }: Tried) =>
      requests.map(({ before }) => new URL(before!.url).pathname).sort();
    expect(pathsOf(again)).toEqual(pathsOf(result));
    const { status, stdout } = await run(['compare', 'trial-1-before', 'trial-1-after'], { cwd });
    expect([status, stdout]).toEqual([0, expect.stringContaining('same conditions')]);
  });

  it('tries fixes together and each alone, and says what they changed', async () => {
    const cwd = temporaryFolder();
    const { hosts } = await served();
    const result = await tried(
      [home, '--without-host', 'drift.test', '--fix', 'lazy,without-hosts', '--each', ...hosts],
      cwd,
    );
    expect(result.fixes.map(({ name, changed }) => [name, changed])).toEqual([
      ['lazy', 0],
      ['without-hosts', 1],
    ]);
    expect(result.requestCount.difference).toBe(-2);
    expect(result.fixes[1]!.notes).toEqual(['1 response is no longer there']);
  });

  it('serves files that were made by hand, and tells what is asked for and was not recorded', async () => {
    const cwd = temporaryFolder();
    const { hosts } = await served();
    writeFiles(join(cwd, 'mended'), {
      'index.html':
        '<!doctype html><link rel="icon" href="data:,"><link rel="stylesheet" href="/site.css"><img src="/kite.jpg" style="width: 200px"><img src="/new.jpg">',
    });
    const result = await tried([home, '--files', 'mended', '--fix', 'files', ...hosts], cwd);
    expect(result.fixes.map(({ name, changed }) => [name, changed])).toEqual([['files', 1]]);
    expect(result.replay.unrecorded.map(({ url, referrer }) => [url, referrer])).toEqual([
      [`${home}new.jpg`, home],
    ]);
    expect(result.looks.similarity).toBeLessThan(0.95);
    const text = await run(
      ['trial', home, '--files', 'mended', '--fix', 'files', ...hosts, ...quick, '--quiet'],
      { cwd },
    );
    expect(text.stdout).toContain('Replay: 1 request not in the recording, answered with 404');
  });

  it('replays TLS and HTTP/2 as they were recorded', async () => {
    const cwd = temporaryFolder();
    const archive = await serveArchive();
    onTestFinished(() => archive.close());
    const page = new URL('order/', archive.start).href;
    const hosts = Object.entries(archive.hosts).flatMap(([host, at]) => [
      '--map-host',
      `${host}=${at}`,
    ]);
    const result = await tried(
      [page, '--any-certificate', '--fix', 'flat-imports,defer', ...hosts],
      cwd,
    );
    expect(result.fixes.map(({ changed }) => changed > 0)).toEqual([true, true]);
    expect(result.looks.similarity).toBe(1);
    const workspace = Workspace.openExisting(join(cwd, '.zealous-lynx'));
    onTestFinished(() => workspace.close());
    for (const label of ['trial-1-before', 'trial-1-after']) {
      const [session] = workspace.sessions.find(label);
      const protocols = session!.runs.flatMap(({ requests }) =>
        requests.map((one) => one.protocol),
      );
      expect([label, ...new Set(protocols)]).toEqual([label, 'h2']);
    }
  });

  it('replays a HAR file of another program', async () => {
    const cwd = temporaryFolder();
    const entry = (url: string, mimeType: string, body: Buffer) => ({
      startedDateTime: '2026-11-27T00:00:00.000Z',
      time: 20,
      request: { method: 'GET', url, httpVersion: 'HTTP/1.1', headers: [] },
      response: {
        ...{ status: 200, httpVersion: 'HTTP/1.1' },
        headers: [{ name: 'Content-Type', value: mimeType }],
        content: { size: body.length, mimeType, text: body.toString('base64'), encoding: 'base64' },
        bodySize: body.length,
      },
      timings: { send: 0, wait: 20, receive: 0 },
    });
    const css = Buffer.from('p { color: red }\n'.repeat(2_000));
    const entries = [
      entry(
        'http://far.test/',
        'text/html',
        Buffer.from(
          '<!doctype html><link rel="icon" href="data:,"><link rel="stylesheet" href="a.css"><p>Far',
        ),
      ),
      entry('http://far.test/a.css', 'text/css', css),
    ];
    writeFiles(cwd, {
      'far.har': JSON.stringify({ log: { version: '1.2', entries } }),
      'bare.har': JSON.stringify({
        log: {
          version: '1.2',
          entries: entries.map(({ response, ...rest }) => ({
            ...rest,
            response: { ...response, content: { size: 10, mimeType: 'text/html' } },
          })),
        },
      }),
    });
    const result = await tried(['--har', 'far.har', '--fix', 'compress'], cwd);
    expect(result.fixes).toMatchObject([{ name: 'compress', changed: 1 }]);
    expect(result.bytes.difference).toBeLessThan(-css.length * 0.9);
    const bare = await run(['trial', '--har', 'bare.har'], { cwd });
    expect([bare.status, bare.stderr]).toEqual([
      2,
      expect.stringContaining('bare.har has no bodies'),
    ]);
  });

  it('refuses in one line what cannot be tried', async () => {
    const cwd = temporaryFolder();
    const { hosts } = await served();
    writeFiles(cwd, {
      'empty/a.txt': '',
      'old/manifest.json': '{"format":"zealous-lynx.refit/0"}',
    });
    const calls: readonly (readonly [readonly string[], number, RegExp])[] = [
      [[], 2, /say which page to try fixes on/],
      [[home, '--har', 'a.har'], 2, /either pages or --har/],
      [['--har', 'none.har'], 2, /there is no file none.har/],
      [[home, '--fix', 'magic', ...hosts], 2, /--fix: expected dimensions, lazy, .* found "magic"/],
      [[home, '--refit', 'empty', ...hosts], 2, /empty is not the folder of a refit/],
      [[home, '--refit', 'old', ...hosts], 2, /not what a refit of this version writes/],
      [[`${home}gone`, ...hosts], 3, /gone could not be recorded: returned 404/],
      [[home, '--files', 'nowhere', ...hosts], 2, /the folder nowhere cannot be read/],
    ];
    for (const [values, status, words] of calls) {
      const outcome = await run(['trial', ...values, '--quiet'], { cwd });
      const lines = outcome.stderr.trim().split('\n');
      expect([values, outcome.status, lines.length]).toEqual([values, status, 1]);
      expect(lines[0]).toMatch(words);
    }
  });
});
