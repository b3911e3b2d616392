import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';
import type { IncomingMessage } from 'node:http';

interface SurveyDocument {
  readonly pages: readonly { readonly url: string; readonly group: string }[];
  readonly takenOver: {
    readonly pages: number;
    readonly asked: number;
    readonly changed: readonly { readonly url: string; readonly reason: string }[];
  };
}

interface RankDocument {
  readonly survey: object;
  readonly images: readonly object[];
}

/** A site whose files can be changed while it is served; each has an ETag, and is sent anew only if that changed. */
async function changingSite(files: Record<string, Answer>) {
  const answer =
    (path: string) =>
    (request: IncomingMessage): Answer => {
      const { headers, ...file } = files[path]!;
      const etag = `"${String(file.body).length}-${headers?.['x-version'] ?? 1}"`;
      const isSame = request.headers['if-none-match'] === etag;
      return { ...(isSame ? { status: 304 } : file), headers: { etag } };
    };
  return serve(Object.fromEntries(Object.keys(files).map((path) => [path, answer(path)])));
}

const page = (body: string) => `<!doctype html><title>Kites</title><main>${body}</main>`;

describe('survey --changed-since', () => {
  it('visits what has changed, takes over the rest, and comes to what a full survey comes to', async () => {
    const cwd = temporaryFolder();
    const [kite, bay, other] = await Promise.all(
      [1, 2, 3].map((seed) => photograph(300, 200, seed).jpeg().toBuffer()),
    );
    const jpeg = (body: Buffer) => ({ type: 'image/jpeg', body });
    const links = ['one', 'two', 'three'].map((name) => `<a href="/${name}">${name}</a>`).join('');
    const files: Record<string, Answer> = {
      '/': { body: page(`${links}<img src="/kite.jpg" width="100" alt="">`) },
      '/one': { body: page('<h1>One</h1><img src="/kite.jpg" width="120" alt="">') },
      '/two': { body: page('<h1>Two</h1><p>x</p><img src="/bay.jpg" width="150" alt="">') },
      '/three': { body: page('<h1>Three</h1><p>Nothing to see.</p><p>Yet.</p>') },
      '/four': { body: page('<h1>Four</h1><p>New.</p>') },
      '/kite.jpg': jpeg(kite!),
      '/bay.jpg': jpeg(bay!),
    };
    const site = await changingSite(files);
    const asked = () => site.asked.splice(0);
    await run(['survey', `${site.origin}/`, '--label', 'first', ...oneView], { cwd });
    asked();

    const same = await runJson<SurveyDocument>(['survey', '--changed-since', 'first'], { cwd });
    expect(schemaErrors('survey', same)).toEqual([]);
    expect(same.takenOver).toEqual({ from: 'first', pages: 4, asked: 6, changed: [] });
    // Each file once, and nothing that a browser would ask for besides.
    expect(
      asked()
        .filter((path) => path !== '/robots.txt')
        .sort(),
    ).toEqual(['/', '/bay.jpg', '/kite.jpg', '/one', '/three', '/two'].sort());

    // A page says something else and has a new link; a picture of another page is another one.
    files['/three'] = { body: page('<h1>Three</h1><a href="/four">four</a>') };
    files['/bay.jpg'] = { ...jpeg(other!), headers: { 'x-version': '2' } };
    const label = ['--label', 'second'];
    const next = await runJson<SurveyDocument>(['survey', '--changed-since', 'first', ...label], {
      cwd,
    });
    const reasons = next.takenOver.changed.map(({ url, reason }) => [
      new URL(url).pathname,
      reason,
    ]);
    expect(reasons.sort()).toEqual([
      ['/three', 'its document is another one by now'],
      ['/two', `${site.origin}/bay.jpg is another one by now`],
    ]);
    expect(next.pages.map(({ url }) => new URL(url).pathname).sort()).toEqual(
      ['/', '/four', '/one', '/three', '/two'].sort(),
    );

    const full = ['survey', `${site.origin}/`, '--label', 'full', ...oneView];
    const { pages } = await runJson<SurveyDocument>(full, { cwd });
    expect(next.pages.map(({ url, group }) => [url, group])).toEqual(
      pages.map(({ url, group }) => [url, group]),
    );
    const ranked = async (name: string) => {
      const { survey: _, ...rest } = await runJson<RankDocument>(['rank', '--survey', name], {
        cwd,
      });
      return rest;
    };
    expect(await ranked('second')).toEqual(await ranked('full'));
  });

  it('believes a sitemap that says that a page has changed', async () => {
    const cwd = temporaryFolder();
    const files: Record<string, Answer> = {
      '/': { body: page('<a href="/one">one</a>') },
      '/one': { body: page('<h1>One</h1>') },
      '/sitemap.xml': { type: 'application/xml', body: '' },
    };
    const site = await changingSite(files);
    await run(['survey', `${site.origin}/`, '--label', 'first', ...oneView], { cwd });
    const url = (path: string, day: string) =>
      `<url><loc>${site.origin}${path}</loc><lastmod>${day}</lastmod></url>`;
    const urls = url('/', '2001-01-01') + url('/one', '2999-01-01');
    files['/sitemap.xml'] = { type: 'application/xml', body: `<urlset>${urls}</urlset>` };
    const { takenOver } = await runJson<SurveyDocument>(
      ['survey', '--changed-since', 'first', '--sitemap', `${site.origin}/sitemap.xml`],
      { cwd },
    );
    expect(takenOver.changed).toEqual([
      { url: `${site.origin}/one`, reason: 'the sitemap says that it changed on 2999-01-01' },
    ]);
  });

  it('says what it cannot be given, and which surveys it cannot go on from', async () => {
    const cwd = temporaryFolder();
    const site = await changingSite({ '/': { body: page('<p>x</p>') } });
    await run(['survey', `${site.origin}/`, '--label', 'first', ...oneView], { cwd });
    const both = await run(['survey', `${site.origin}/`, '--changed-since', 'first'], { cwd });
    expect(both.status).toBe(2);
    expect(both.stderr).toMatch(/--changed-since has the starts of the survey it names/);
    const none = await run(['survey', '--changed-since', 'autumn'], { cwd });
    expect(none.status).toBe(2);
    expect(none.stderr).toMatch(/there is no survey autumn .*there are: first/);
  });
});
