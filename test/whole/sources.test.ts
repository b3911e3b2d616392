import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { oneView, run, runJson } from '../support/program.js';
import { serve } from '../support/server.js';

interface SurveyDocument {
  readonly survey: { readonly views: readonly { name: string; share: number }[] };
  readonly pages: readonly {
    readonly url: string;
    readonly finalUrl: string;
    readonly visits: number | null;
    readonly group: string | null;
  }[];
  readonly skipped: readonly { url: string; reason: string }[];
}

const page = (body: string) => ({ body: `<!doctype html><title>t</title>${body}` });

async function survey(cwd: string, ...values: readonly string[]): Promise<SurveyDocument> {
  return runJson<SurveyDocument>(['survey', ...values, ...oneView], { cwd });
}

describe('what a survey begins with', () => {
  it('may be a list with visits; links are then followed only when that is asked for', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({
      '/one': page('<a href="/more">x</a>'),
      '/two': page('<p>two'),
      '/more': page('<p>more'),
    });
    writeFileSync(
      join(cwd, 'pages.csv'),
      `url,visits\n${origin}/one,"12,000"\n${origin}/%74wo,\n${origin}/one#x,5\n`,
    );
    const listed = await survey(cwd, '--list', 'pages.csv');
    expect(listed.pages.map(({ url, visits }) => [url, visits])).toEqual([
      [`${origin}/one`, 12_000],
      [`${origin}/two`, null],
    ]);
    expect(listed.skipped).toEqual([
      { url: `${origin}/more`, reason: 'more than 0 links from a start' },
    ]);
    const deeper = await survey(cwd, '--list', 'pages.csv', '--depth', '1');
    expect(deeper.pages).toHaveLength(3);
  });

  it('may be sitemaps: given, in an index, compressed, or named in robots.txt', async () => {
    const cwd = temporaryFolder();
    const at: { origin: string } = { origin: '' };
    const urlset = (...paths: readonly string[]) =>
      `<urlset>${paths.map((path) => `<url><loc>${at.origin}${path}</loc></url>`).join('')}</urlset>`;
    const index = () =>
      `<sitemapindex><sitemap><loc>${at.origin}/a.xml.gz</loc></sitemap><sitemap><loc>${at.origin}/none.xml</loc></sitemap></sitemapindex>`;
    const server = await serve({
      '/robots.txt': () => ({ type: 'text/plain', body: `Sitemap: ${at.origin}/index.xml` }),
      '/index.xml': () => ({ type: 'application/xml', body: index() }),
      '/a.xml.gz': () => ({
        type: 'application/gzip',
        body: gzipSync(urlset('/one', '/two', '/print/two')),
      }),
      '/one': page('<a href="/linked">x</a>'),
      '/two': page('<p>two'),
      '/linked': page('<p>linked'),
    });
    at.origin = server.origin;
    const { origin } = server;
    const named = await survey(cwd, `${origin}/one`, '--sitemap', 'robots', '--exclude', '/print*');
    expect(named.pages.map(({ url }) => url.slice(origin.length)).sort()).toEqual([
      '/linked',
      '/one',
      '/two',
    ]);
    expect(named.skipped).toContainEqual({
      url: `${origin}/none.xml`,
      reason: 'it returned 404',
    });
    expect(named.skipped).toContainEqual({
      url: `${origin}/print/two`,
      reason: 'matches --exclude',
    });

    writeFiles(cwd, { 'site.xml': urlset('/two', 'two words'), 'bad.xml': '<urlset>\n<url>' });
    const alone = await survey(cwd, '--sitemap', 'site.xml');
    expect(alone.pages.map(({ url }) => url)).toEqual([`${origin}/two`]);
    const bad = await run(['survey', '--sitemap', 'bad.xml'], { cwd });
    expect(bad.status).toBe(2);
    expect(bad.stderr).toMatch(/the sitemap bad\.xml cannot be read: line 2: /);
    const none = await run(['survey', '--sitemap', `${origin}/none.xml`], { cwd });
    expect(none.stderr).toContain('none.xml cannot be read: it returned 404');
  });

  it('counts one page once: canonical addresses, sessions, queries, encodings', async () => {
    const cwd = temporaryFolder();
    const { origin } = await serve({
      '/': page(
        ['/kites?sort=up', '/kites;jsessionid=1A', '/k%69tes', '/header', '/wrong', '/twin-a']
          .map((href) => `<a href="${href}">x</a>`)
          .join(''),
      ),
      '/kites': page('<link rel="canonical" href="/kites"><p>kites'),
      '/kites?sort=up': page('<link rel="canonical" href="/kites"><p>kites'),
      '/header': { ...page('<p>'), headers: { link: '</kites>; rel="canonical"' } },
      '/wrong': page('<link rel="canonical" href="http://elsewhere.test/"><p>ours all the same'),
      '/twin-a': page('<link rel="canonical" href="/twin-b">'),
      '/twin-b': page('<link rel="canonical" href="/twin-a">'),
    });
    const { pages, skipped } = await survey(cwd, `${origin}/`);
    expect(pages.map(({ url }) => url.slice(origin.length)).sort()).toEqual([
      '/',
      '/kites',
      '/twin-b',
      '/wrong',
    ]);
    expect(skipped).toContainEqual({
      url: `${origin}/kites?sort=up`,
      reason: `its canonical address is ${origin}/kites`,
    });
    const unbelieving = await survey(cwd, `${origin}/`, '--ignore-canonical');
    expect(unbelieving.pages).toHaveLength(6);
  });

  it('stays on its host or its domain, wherever the start leads', async () => {
    const cwd = temporaryFolder();
    const { address } = await serve({
      '//brindlebay.test/': { location: 'http://www.brindlebay.test/' },
      '//www.brindlebay.test/': page(
        '<base href="http://shop.brindlebay.test/"><a href="/kites">x</a><a href="http://www.brindlebay.test/more">x</a><a href="http://gullpost.test/">x</a>',
      ),
      '//www.brindlebay.test/more': page('<p>more'),
      '//shop.brindlebay.test/kites': page('<p>kites'),
    });
    const map = ['--map-host', `*.test=${address}`] as const;
    const host = await survey(cwd, 'http://brindlebay.test/', ...map);
    expect(host.pages.map(({ finalUrl }) => finalUrl)).toEqual([
      'http://www.brindlebay.test/',
      'http://www.brindlebay.test/more',
    ]);
    const domain = await survey(cwd, 'http://brindlebay.test/', '--within', 'domain', ...map);
    expect(domain.pages.map(({ finalUrl }) => finalUrl)).toContain(
      'http://shop.brindlebay.test/kites',
    );
    expect(domain.pages).toHaveLength(3);
  });

  it('takes its views from the audience, and page groups from the config', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'screens.csv': 'size;pixel ratio;users\n390x844;3;700\n393x852;3;50\n1366 x 768;1;250\n',
      'wrong.csv': 'width,height,density,visits\n390,844,3,7\n5,844,3,7\n',
      'pages.txt': 'http://site.localhost/journal/rain.html\n',
      'site/index.html': '<title>t</title><p>here',
      'site/journal/rain.html': '<title>t</title><p>rain',
      'zealous-lynx.config.yaml': "groups: [{ name: articles, pages: ['/journal/*'] }]",
    });
    const { survey: head, pages } = await runJson<SurveyDocument>(
      ['survey', 'site', '--sitemap', 'pages.txt', '--audience', 'screens.csv'],
      { cwd },
    );
    expect(head.views.map(({ name, share }) => [name, share])).toEqual([
      ['phone-390', 0.75],
      ['laptop-1366', 0.25],
    ]);
    expect(pages.map(({ group }) => group)).toEqual(['/', 'articles']);
    const wrong = await run(['survey', 'site', '--audience', 'wrong.csv'], { cwd });
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toContain('wrong.csv, line 3: width must be from 100 to 10000');
  });
});
