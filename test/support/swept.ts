import type { Browser, BrowserContext } from 'playwright-core';
import { afterAll, beforeAll } from 'vitest';
import { BodyCollector } from '../../dist/src/browser/network/bodies.js';
import { contextFor, launchBrowser } from '../../dist/src/browser/chromium/launch.js';
import { TextCollector } from '../../dist/src/browser/network/texts.js';
import { WireBytes } from '../../dist/src/browser/network/wire-bytes.js';
import { Visitor } from '../../dist/src/browser/visit/visitor.js';
import type { Visit } from '../../dist/src/browser/visit/visit-result.js';
import { contentHashOf } from '../../src/images/hash.js';
import { photograph } from './pictures.js';
import { serve } from './server.js';
import type { Answer } from './server.js';

const view = { name: 'wall', width: 1000, height: 700, density: 1, touch: false, share: 1 };

let browser: Browser;
let context: BrowserContext;
let answers: Readonly<Record<string, Answer>>;

beforeAll(async () => {
  browser = await launchBrowser(undefined, { oneProcess: true });
  context = await browser.newContext(contextFor(view));
  answers = {
    '/a.png': { type: 'image/png', body: await photograph(90, 60).png().toBuffer() },
    '/b.png': { type: 'image/png', body: await photograph(180, 120).png().toBuffer() },
  };
});
afterAll(() => browser.close());

/** Visits and sweeps a page of its own, with a small and a larger picture beside it. */
export async function visitSwept(body: string, more: Readonly<Record<string, Answer>> = {}) {
  const { origin, asked } = await serve({
    '/': { body: `<!doctype html><style>body{margin:0}img{display:block}</style>${body}` },
    ...answers,
    ...more,
  });
  const bodies = new BodyCollector((bytes) => Promise.resolve(contentHashOf(bytes)));
  const visitor = new Visitor({
    context,
    view,
    bodies,
    texts: new TextCollector(() => ''),
    wireBytes: new WireBytes(),
    sweeps: true,
  });
  return { origin, asked, visitor, result: await visitor.visit(`${origin}/`) };
}

export function curveOf({ curves }: Visit, selector: string) {
  return curves.find((curve) => curve.selector === selector)?.pieces;
}
