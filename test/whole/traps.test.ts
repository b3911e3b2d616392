import { readFileSync } from 'node:fs';
import { describe, expect, it, vi } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';

interface SurveyDocument {
  readonly pages: readonly { readonly url: string; readonly error?: string }[];
  readonly skipped: readonly { readonly url: string; readonly reason: string }[];
  readonly missingImages: readonly {
    readonly url: string;
    readonly problem: string;
    readonly status: number;
    readonly pages: number;
  }[];
}

const page = (body: string) => ({ body: `<!doctype html><title>t</title>${body}` });

/** The processes that a process has started itself. */
function childrenOf(pid: number): number[] {
  const text = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8');
  return text.trim().split(/\s+/).filter(Boolean).map(Number);
}

describe('a site that is a trap', () => {
  it('is not followed for ever: calendars, paths that go round', async () => {
    const cwd = temporaryFolder();
    const answers = Object.fromEntries(
      Array.from({ length: 40 }, (_, day) => [
        `/calendar?day=${day}`,
        page(`<a href="/calendar?day=${day + 1}">next</a><a href="x/x/x/x">round</a>`),
      ]),
    );
    const { origin, asked } = await serve({
      '/': page('<a href="/calendar?day=0">x</a><a href="/about">x</a>'),
      '/about': page('<p>about'),
      ...answers,
    });
    const { pages, skipped } = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, '--per-group', '5', ...oneView],
      { cwd },
    );
    expect(pages).toHaveLength(7);
    expect(asked).not.toContain('/calendar?day=5');
    expect(skipped).toContainEqual({
      url: `${origin}/calendar?day=5`,
      reason: `more than 5 addresses with the pattern ${origin}/*?day`,
    });
    expect(skipped).toContainEqual({
      url: `${origin}/x/x/x/x`,
      reason: 'its path repeats itself',
    });
  });

  it('costs each bad page itself: dialogs, popups, downloads, prints, endless loads, eaten memory', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const names = ['talks', 'opens', 'prints', 'downloads', 'hangs', 'slow', 'eats', 'leaves'];
    const script = (code: string) =>
      page(`<img src="/a.jpg" width="30"><p>here<script>${code}</script>`);
    const { origin } = await serve({
      '/': page([...names, 'good'].map((name) => `<a href="/${name}">x</a>`).join('')),
      '/a.jpg': { type: 'image/jpeg', body: picture },
      '/talks': script('alert("a"); confirm("b"); prompt("c"); onbeforeunload = () => "stay";'),
      '/opens': script('window.open("/good"); window.open("about:blank");'),
      '/prints': script('window.print();'),
      '/downloads': { headers: { 'content-disposition': 'attachment; filename=a.zip' }, body: 'x' },
      '/hangs': script('for (;;);'),
      '/slow': page('<p>here<img src="/never.jpg">'),
      '/never.jpg': { type: 'image/jpeg', body: picture.subarray(0, 400), endless: true },
      '/eats': script(
        'const all = []; for (;;) all.push(new Array(1e6).fill({}).map(() => ({})));',
      ),
      '/leaves': script('location.href = "/good";'),
      '/good': page('<img src="/a.jpg" width="30">'),
    });
    const { pages, missingImages } = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, '--timeout', '4', '--tabs', '3', ...oneView],
      { cwd },
    );
    const errors = Object.fromEntries(
      pages.map(({ url, error }) => [url.slice(origin.length + 1), error]),
    );
    expect(errors['good']).toBeUndefined();
    expect(errors['talks']).toBeUndefined();
    expect(errors['opens']).toBeUndefined();
    expect(errors['prints']).toBeUndefined();
    expect(errors['downloads']).toBe('is a download');
    expect(errors['hangs']).toMatch(/did not respond|was still loading/);
    expect(errors['slow']).toBe('was still loading after 4 s');
    expect(errors['eats']).toMatch(/crashed its renderer|was still loading|did not respond/);
    expect(missingImages).toContainEqual({
      url: `${origin}/never.jpg`,
      problem: expect.stringMatching(/^its body was incomplete after \d+ bytes$/) as string,
      status: 200,
      pages: 1,
      page: `${origin}/slow`,
    });
  }, 180_000);

  it('goes on with another browser when the one it has goes down', async () => {
    const cwd = temporaryFolder();
    const names = ['a', 'b', 'c', 'd'];
    const { origin, asked } = await serve({
      '/': page(names.map((name) => `<a href="/${name}">x</a>`).join('')),
      ...Object.fromEntries(names.map((name) => [`/${name}`, { ...page('<p>'), wait: 300 }])),
    });
    const child = start(['survey', `${origin}/`, '--tabs', '2', '--json', ...oneView], { cwd });
    const ended = outcomeOf(child);
    await vi.waitFor(() => expect(asked).toContain('/a'), { timeout: 20_000 });
    const browsers = childrenOf(child.pid!);
    expect(browsers).toHaveLength(1);
    process.kill(browsers[0]!, 'SIGKILL');
    const { status, stdout } = await ended;
    expect(status).toBe(0);
    const { pages } = JSON.parse(stdout) as SurveyDocument;
    expect(pages.map(({ url, error }) => [url.slice(origin.length), error])).toEqual(
      ['/', '/a', '/b', '/c', '/d'].map((path) => [path, undefined]),
    );
  });

  it('tells which images do not come, and why', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({
      '/': page('<img src="/gone.png"><img src="/cut.png"><a href="/two">x</a>'),
      '/two': page('<div style="width:9px;height:9px;background:url(/gone.png)"></div>'),
      '/gone.png': { status: 404, type: 'text/html', body: 'no' },
      '/cut.png': { hangUp: true },
    });
    const { missingImages } = await runJson<SurveyDocument>(['survey', `${origin}/`, ...oneView], {
      cwd,
    });
    expect(missingImages).toEqual([
      {
        url: `${origin}/gone.png`,
        problem: 'returned 404',
        status: 404,
        pages: 2,
        page: `${origin}/`,
      },
      {
        url: `${origin}/cut.png`,
        problem: 'the server closed the connection without a response',
        status: 0,
        pages: 1,
        page: `${origin}/`,
      },
    ]);
    const told = await run(['survey', `${origin}/`, ...oneView], { cwd });
    expect(told.stdout).toContain('! no image at /gone.png (2 pages): returned 404');
  });
});
