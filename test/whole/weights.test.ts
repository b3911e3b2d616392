import { createHash } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launchBrowser } from '../../dist/src/browser/chromium/launch.js';
import { coldLoad, defaultColdLoadLimits } from '../../dist/src/browser/load/cold-load.js';
import type { Conditions } from '../../src/core/visitors/conditions.js';
import { unshaped } from '../../src/core/visitors/network.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { runJson, oneView } from '../support/program.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface Surveyed {
  readonly pages: readonly {
    readonly url: string;
    readonly bytesByType: Readonly<Record<string, number>>;
  }[];
}
interface Clocked {
  readonly requests: readonly { readonly url: string }[];
  readonly median: { readonly requestCount: number };
}
interface Ranked {
  readonly perVisit: { readonly sentBytes: number };
  readonly images: readonly {
    readonly bytes: number;
    readonly answers: readonly { readonly url: string; readonly sent?: number }[];
  }[];
}

/** An answer that a cache may ask about again: 304 where it has it already. */
function validated(answer: Answer, headers: Record<string, string>) {
  const etag = `"${createHash('sha1')
    .update(answer.body ?? '')
    .digest('hex')}"`;
  const modified = 'Mon, 02 Nov 2026 08:00:00 GMT';
  const kinds: Record<string, Record<string, string>> = {
    etag: { etag },
    modified: { 'last-modified': modified },
  };
  const own = Object.fromEntries(
    Object.keys(headers).flatMap((name) => Object.entries(kinds[name] ?? {})),
  );
  const told = Object.fromEntries(Object.entries(headers).filter(([name]) => !(name in kinds)));
  return ({ headers: asked }: IncomingMessage): Answer =>
    (own['etag'] && asked['if-none-match'] === etag) ||
    (own['last-modified'] && asked['if-modified-since'] === modified)
      ? { status: 304, type: answer.type!, headers: { ...own, ...told } }
      : { ...answer, headers: { ...own, ...told } };
}

const policies: readonly (readonly [name: string, headers: Record<string, string>])[] = [
  ['an ETag', { etag: '', 'cache-control': 'max-age=0' }],
  ['a Last-Modified date', { modified: '', 'cache-control': 'no-cache' }],
  ['no-cache and an ETag', { etag: '', 'cache-control': 'no-cache' }],
  ['immutable', { 'cache-control': 'max-age=31536000, immutable' }],
  ['no-store', { 'cache-control': 'no-store' }],
  ['nothing', {}],
];

let browser: Browser;
beforeAll(async () => {
  browser = await launchBrowser();
});
afterAll(() => browser.close());

/** Bytes on the wire of a load with nothing in any cache. */
async function coldBytes(url: string): Promise<number> {
  const [view] = chooseViews(defaultViews, ['laptop']);
  const conditions = { network: unshaped, cpuFactor: 1, view: view!, browser: '', cache: 'cold' };
  const limits = { ...defaultColdLoadLimits, rest: 0 };
  const [{ requests }] = await coldLoad(browser, {
    ...{ url, conditions: conditions as Conditions, limits },
    isThirdParty: () => false,
  });
  return requests.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
}

describe('the weight of a page', () => {
  it.each(policies)('is that of a first visit, with %s', async (_name, headers) => {
    const cwd = temporaryFolder();
    const names = ['', 'one.html', 'two.html'];
    const links = names.map((name) => `<a href="/${name}">x</a>`).join('');
    const page = (name: string) =>
      validated(
        {
          type: 'text/html',
          body: `<!doctype html><title>${name}</title><link rel="stylesheet" href="/all.css"><script src="/all.js"></script>${links}<img src="/all.jpg" width="200"><img src="/${name || 'index'}.jpg" width="100">`,
        },
        headers,
      );
    const picture = async (seed: number) =>
      validated(
        { type: 'image/jpeg', body: await photograph(300, 200, seed).jpeg().toBuffer() },
        headers,
      );
    const { origin } = await serve({
      ...Object.fromEntries(names.map((name) => [`/${name}`, page(name)])),
      ...Object.fromEntries(
        await Promise.all(
          names.map(
            async (name, at) => [`/${name || 'index'}.jpg`, await picture(at + 2)] as const,
          ),
        ),
      ),
      '/all.jpg': await picture(1),
      '/all.css': validated(
        { type: 'text/css', body: `p{color:red}${' '.repeat(9_000)}` },
        headers,
      ),
      '/all.js': validated({ type: 'text/javascript', body: `//${'x'.repeat(7_000)}` }, headers),
    });
    const { pages } = await runJson<Surveyed>(['survey', `${origin}/`, '--no-encode', ...oneView], {
      cwd,
    });
    expect(pages).toHaveLength(3);
    for (const { url, bytesByType } of pages) {
      const weight = Object.values(bytesByType).reduce((sum, bytes) => sum + bytes, 0);
      const cold = await coldBytes(url);
      expect(cold).toBeGreaterThan(40_000);
      expect(Math.abs(weight / cold - 1)).toBeLessThan(0.01);
    }
  });

  it('has bytes of data: addresses once, in the document that brings them', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(200, 100).jpeg().toBuffer();
    const data = `data:image/jpeg;base64,${picture.toString('base64')}`;
    const { origin } = await serve({
      '/': { body: `<!doctype html><title>Kites</title><img src="${data}" width="100">` },
    });
    const { pages } = await runJson<Surveyed>(['survey', `${origin}/`, ...oneView], { cwd });
    const { html, image } = pages[0]!.bytesByType;
    expect(image).toBe(0);
    expect(html).toBeGreaterThan(data.length);
    const { requests, median } = await runJson<Clocked>(
      ['clock', `${origin}/`, '--runs', '1', '--network', 'none'],
      { cwd },
    );
    expect(requests.filter(({ url }) => url.startsWith('data:'))).toEqual([]);
    expect(median.requestCount).toBe(requests.length);
  });

  it('counts an image as often as it is sent', async () => {
    const cwd = temporaryFolder();
    const body = await photograph(300, 200).jpeg().toBuffer();
    const times = 3;
    const { origin } = await serve({
      '/': {
        body: `<!doctype html><title>Kites</title><script>
          const show = () => { const image = new Image(); image.width = 100; image.src = '/a.jpg'; document.body.append(image); return image.decode(); };
          onload = async () => { await fetch('/a.jpg').then((r) => r.blob()); await fetch('/a.jpg').then((r) => r.blob()); await show(); };
        </script><body>`,
      },
      '/a.jpg': { type: 'image/jpeg', body, headers: { 'cache-control': 'no-store' } },
    });
    await runJson(['survey', `${origin}/`, ...oneView], { cwd });
    const { images, perVisit } = await runJson<Ranked>(['rank', '--by', 'image'], { cwd });
    expect(images[0]!.answers[0]!.sent).toBe(times);
    expect(perVisit.sentBytes).toBe(times * body.length);
  });
});
