import { describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start, twoViews } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface SurveyDocument {
  readonly survey: { readonly finishedAt: string | null; readonly label: string };
  readonly pages: readonly { readonly url: string; readonly group: string }[];
  readonly skipped: readonly { url: string; reason: string }[];
}

const page = (body: string) => `<!doctype html><title>t</title>${body}`;

describe('a crawl', () => {
  it('follows links to at most so many pages, and says what it left', async () => {
    const cwd = temporaryFolder();
    const links = Array.from({ length: 9 }, (_, index) => `<a href="/p${index}">x</a>`).join('');
    const pages = Object.fromEntries(
      Array.from({ length: 9 }, (_, index) => [`/p${index}`, { body: page('<p>page') }]),
    );
    const { origin } = await serve({ '/': { body: page(links) }, ...pages });
    const { pages: visited, skipped } = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, '--pages', '4', ...oneView],
      { cwd },
    );
    expect(visited).toHaveLength(4);
    expect(skipped).toHaveLength(6);
    const pattern = `${origin}/*`;
    expect(skipped[0]!.reason).toBe(
      `more than 4 pages; 3 of 9 with the pattern ${pattern} were surveyed`,
    );
  });

  it('takes two addresses of one document for one page, and leaves what is none after its first view', async () => {
    const cwd = temporaryFolder();
    const text = Array.from({ length: 30 }, (_, at) => `<p>Kite number ${at} over the bay</p>`);
    const links =
      '<a href="/index.html">x</a><a href="/start">x</a><a href="/other">x</a><a href="/copy">x</a><a href="/?reply=7" rel="nofollow">x</a>';
    let loads = 0;
    // A time and a token are different each time.
    const home = () => ({
      body: page(
        `${text.join('')}${links}<script>var token = ${++loads}</script><p>Made at 12:0${loads % 10}:33 in 0.${loads} s</p>`,
      ),
    });
    const { origin, asked } = await serve({
      '/': home,
      '/index.html': home,
      '/start': home,
      '/other': { body: page(`${text.slice(1).join('')}<p>Another page</p>`) },
      '/copy': {
        body: `<!doctype html><title>t</title><link rel="canonical" href="/other"><p>The copy`,
      },
    });
    const { pages, skipped } = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, ...twoViews],
      { cwd },
    );
    expect(pages.map(({ url }) => url)).toEqual([`${origin}/`, `${origin}/other`]);
    expect(skipped).toEqual(
      expect.arrayContaining([
        { url: `${origin}/index.html`, reason: `shows the same document as ${origin}/` },
        { url: `${origin}/start`, reason: `shows the same document as ${origin}/` },
        { url: `${origin}/copy`, reason: `its canonical address is ${origin}/other` },
        expect.objectContaining({ url: `${origin}/?reply=7` }),
      ]),
    );
    const times = (path: string) => asked.filter((one) => one === path).length;
    const loaded = ['/', '/other', '/index.html', '/start', '/copy', '/?reply=7'].map(times);
    expect(loaded).toEqual([2, 2, 1, 1, 1, 0]);
    const all = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, '--ignore-canonical', ...oneView],
      { cwd },
    );
    // The reply is a page then: other addresses than its own lead there.
    expect(all.pages).toHaveLength(6);
  });

  it('obeys robots.txt under its own name, unless it is told not to', async () => {
    const cwd = temporaryFolder();
    const { origin, asked } = await serve({
      '/': { body: page('<a href="/open">x</a><a href="/closed">x</a>') },
      '/open': { body: page('<p>open') },
      '/closed': { body: page('<p>closed') },
      '/robots.txt': { type: 'text/plain', body: 'User-agent: zealouslynx\nDisallow: /closed' },
    });
    const { pages, skipped } = await runJson<SurveyDocument>(['survey', `${origin}/`, ...oneView], {
      cwd,
    });
    expect(pages.map(({ url }) => url)).toEqual([`${origin}/`, `${origin}/open`]);
    expect(skipped).toEqual([{ url: `${origin}/closed`, reason: 'forbidden by robots.txt' }]);
    expect(asked).not.toContain('/closed');
    expect(asked.filter((path) => path === '/robots.txt')).toHaveLength(1);
    const all = await runJson<SurveyDocument>(
      ['survey', `${origin}/`, '--ignore-robots', ...oneView],
      { cwd },
    );
    expect(all.pages).toHaveLength(3);
  });

  it('names groups whose addresses are alike by their breadcrumbs and headings', async () => {
    const cwd = temporaryFolder();
    const links = ['/a', '/b', '/c', '/d'].map((href) => `<a href="${href}">x</a>`).join('');
    const event = (name: string) =>
      page(
        `<nav aria-label="Breadcrumb"><ol><li><a href="/">Home</a><li><a href="/a"> Pro\n gramme </a><li>${name}</ol></nav><main><article class="event"><h1>${name}</h1><section><p>When</section></article></main>`,
      );
    const maker = page(
      `<div class="wall"><h1>The <b>makers</b></h1><figure class="maker"><figcaption>Who</figcaption></figure></div>`,
    );
    const { origin } = await serve({
      '/': { body: page(links) },
      ...{ '/a': { body: event('Rain') }, '/b': { body: event('Calm') } },
      ...{ '/c': { body: `${maker}<p>1` }, '/d': { body: `${maker}<p>2` } },
    });
    const { pages } = await runJson<SurveyDocument>(['survey', `${origin}/`, ...oneView], { cwd });
    expect(pages.map(({ group }) => group).sort()).toEqual([
      '/',
      'pages headed The makers',
      'pages headed The makers',
      'pages under Pro gramme',
      'pages under Pro gramme',
    ]);
  });

  it('goes on after it was killed, loads no finished page again and loses none', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const names = Array.from({ length: 9 }, (_, index) => `/p${index}`);
    const links = (to: readonly string[]) => to.map((href) => `<a href="${href}">x</a>`).join('');
    const answers: Record<string, Answer> = {
      '/': { body: page(`<img src="/a.jpg" width="30">${links(names.slice(0, 5))}`) },
      '/a.jpg': { type: 'image/jpeg', body: picture },
      '/elsewhere': { body: page('never asked for') },
    };
    // The later pages are known from the earlier ones alone: to lose what those said is to lose them.
    names.forEach((name, index) => {
      const more = names.slice(index + 4, index + 5);
      answers[name] = { wait: 250, body: page(`<img src="/a.jpg" width="40">${links(more)}`) };
    });
    const { origin, asked } = await serve(answers);
    const child = start(
      ['survey', `${origin}/`, '--tabs', '2', '--exclude', '/else*', ...twoViews],
      { cwd },
    );
    const ended = outcomeOf(child);
    while (!asked.includes('/p3')) await new Promise((resolve) => setTimeout(resolve, 20));
    child.kill('SIGKILL');
    await ended;

    const finished = await run(['survey', `${origin}/`, '--resume'], { cwd });
    expect(finished.stderr).toContain('leave out the starts, the list and the sitemaps');
    const before = asked.length;
    const { survey, pages, skipped } = await runJson<SurveyDocument>(['survey', '--resume'], {
      cwd,
    });
    expect(survey.finishedAt).not.toBeNull();
    expect(pages.map(({ url }) => url.slice(origin.length)).sort()).toEqual(['/', ...names].sort());
    expect(skipped).toEqual([]);
    const again = asked.slice(before);
    expect(again).not.toContain('/');
    const total = (name: string) => asked.filter((path) => path === name).length;
    // Two views each; only those that were under way when it was killed were loaded more than that.
    expect(names.filter((name) => total(name) > 2).length).toBeLessThanOrEqual(2);
    expect(names.every((name) => total(name) >= 2)).toBe(true);

    const over = await run(['survey', '--resume'], { cwd });
    expect(over.status).toBe(2);
    expect(over.stderr).toContain('is complete: there is nothing to resume');
    const ranked = await run(['rank'], { cwd });
    expect(ranked.stdout).toContain('10 pages in 2 views');
  });
});
