import type { Browser, CDPSession } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Channel } from '../../../src/browser/chromium/channel.js';
import { openChannel } from '../../../src/browser/chromium/direct-channel.js';
import { launchBrowser } from '../../../src/browser/chromium/launch.js';
import { serve } from '../../support/server.js';

let browser: Browser;

beforeAll(async () => {
  browser = await launchBrowser();
});
afterAll(() => browser.close());

/** The driver's own session of a page, and the direct channel to it. */
async function both(): Promise<readonly [CDPSession, Channel]> {
  const page = await browser.newPage();
  return [await page.context().newCDPSession(page), await openChannel(page)];
}

const sum = { expression: '6 * 7', returnByValue: true };

it('goes past the client of the driver', async () => {
  const [session, channel] = await both();
  expect(channel.constructor).not.toBe(session.constructor);
});

it('is answered like the session of the driver', async () => {
  const answers = await Promise.all(
    (await both()).map((channel) => channel.send('Runtime.evaluate', sum)),
  );
  expect(answers[1]!.result.value).toBe(42);
  expect(answers[1]).toEqual(answers[0]);
});

it('tells the same events, in the order in which they came, until they are no longer wanted', async () => {
  const { origin } = await serve({ '/': { body: '<!doctype html><title>t</title>' } });
  const page = await browser.newPage();
  const session = await page.context().newCDPSession(page);
  const channel = await openChannel(page);
  const told = await Promise.all(
    [session, channel].map(async (one) => {
      const events: string[] = [];
      const listen = (name: string) => () => void events.push(name);
      one.on('Network.requestWillBeSent', listen('asked'));
      one.on('Network.responseReceived', listen('answered'));
      one.on('Network.loadingFinished', listen('finished'));
      const unwanted = listen('unwanted');
      one.on('Network.dataReceived', unwanted);
      one.off('Network.dataReceived', unwanted);
      await one.send('Network.enable');
      return events;
    }),
  );
  await page.goto(`${origin}/`, { waitUntil: 'networkidle' });
  expect(told[1]!.slice(0, 3)).toEqual(['asked', 'answered', 'finished']);
  expect(told[1]).toEqual(told[0]);
});

it('says what the browser says of a wrong order', async () => {
  const [, channel] = await both();
  const wrong = channel.send('DOM.getBoxModel', { backendNodeId: 1_000_000 });
  await expect(wrong).rejects.toThrow(/DOM\.getBoxModel.*No node/);
});

it('ends what is under way when its page is closed', async () => {
  const page = await browser.newPage();
  const channel = await openChannel(page);
  const never = channel.send('Runtime.evaluate', {
    ...{ expression: 'new Promise(() => {})', awaitPromise: true },
  });
  const ended = expect(never).rejects.toThrow(/closed/);
  await page.close();
  await ended;
  await expect(channel.send('Runtime.evaluate', sum)).rejects.toThrow(/closed/);
});
