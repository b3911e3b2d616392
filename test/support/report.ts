import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { gunzipSync } from 'node:zlib';
import type { Browser } from 'playwright-core';
import { photograph } from './pictures.js';
import type { Answers } from './server.js';

/** What a page may say to whoever looks at it in a report. */
const hostile = '</script><img src=x onerror="window.broken=1">\u202Eevil';

/** Elements whose images are slot families of their own. */
const places = ['section', 'aside', 'figure', 'article', 'nav', 'footer', 'main', 'form'];

/** A site of two pages, with what is hostile in them. */
export async function reportedSite(): Promise<Answers> {
  const large = await photograph(1600, 1200).jpeg({ quality: 97 }).toBuffer();
  const small = await photograph(900, 600).jpeg({ quality: 95 }).toBuffer();
  const own = await Promise.all(
    places.map((_, at) =>
      photograph(400 + at, 300)
        .jpeg({ quality: 95 })
        .toBuffer(),
    ),
  );
  const icon = '<link rel="icon" href="data:,">';
  return {
    '/': {
      body: `<!doctype html><title>Bay</title>${icon}<script src="/block.js"></script><h1>Kites</h1>
        <img src="/large.jpg" width="400" height="300" alt="Kites"><p>${'The bay. '.repeat(400)}</p>
        <img src="/small.jpg" width="300" height="200" alt="${hostile.replaceAll('"', '&quot;')}${'k'.repeat(10_000)}">
        <a href="/two?token=secret">two</a>`,
    },
    '/two?token=secret': {
      body: `<!doctype html><title>${hostile}</title>${icon}<img src="/small.jpg" width="300" height="200" alt=""><img src="/broken.jpg?${'x'.repeat(3_000)}" width="30" height="20" alt="">
        ${places.map((name) => `<${name}><img src="/${name}.jpg" width="60" height="40" alt=""></${name}>`).join('\n')}`,
    },
    ...Object.fromEntries(
      own.map((body, at) => [`/${places[at]}.jpg`, { type: 'image/jpeg', body }]),
    ),
    '/large.jpg': { type: 'image/jpeg', body: large },
    '/small.jpg': { type: 'image/jpeg', body: small },
    [`/broken.jpg?${'x'.repeat(3_000)}`]: { type: 'image/jpeg', body: hostile },
    '/block.js': { type: 'text/javascript', body: 'document.title += 1;' },
  };
}

/** The document that a report carries. */
export function reportData(file: string): Record<string, unknown> {
  const [, packed = ''] = /id="data-0"[^>]*>([^<]*)</.exec(readFileSync(file, 'utf8')) ?? [];
  return JSON.parse(gunzipSync(Buffer.from(packed, 'base64')).toString()) as Record<
    string,
    unknown
  >;
}

/** The views of a report, as its address names them. */
export const reportViews = ['overview', 'fixes', 'pages', 'loading', 'hand-over'] as const;

/** A report, opened from disk; whatever it asks for or complains of ends the test. */
export async function openedReport(
  browser: Browser,
  file: string,
  more: { readonly dark?: boolean; readonly phone?: boolean } = {},
) {
  const context = await browser.newContext({
    viewport: more.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    colorScheme: more.dark ? 'dark' : 'light',
  });
  const page = await context.newPage();
  const troubles: string[] = [];
  page.on('console', (message) => {
    if (['error', 'warning'].includes(message.type())) troubles.push(message.text());
  });
  page.on('pageerror', ({ message }) => troubles.push(message));
  page.on('request', (request) => {
    if (!/^(?:data|blob):/.test(request.url())) troubles.push(request.url());
  });
  const address = pathToFileURL(file).href;
  await page.goto(address);
  await page.waitForSelector('main h1');
  const show = async (view: string) => {
    await page.click(`nav a[href="#${view}"]`);
    await page.waitForFunction(
      (wanted) => document.querySelector('nav a[aria-current]')?.getAttribute('href') === wanted,
      `#${view}`,
    );
  };
  return {
    ...{ page, show },
    /** What it asked for besides itself, and what went wrong. */
    troubles: () => troubles.filter((text) => text !== address),
    close: () => context.close(),
  };
}
