import { randomUUID } from 'node:crypto';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';

/** Opens the pages of one context, one after another. */
const turns = new WeakMap<BrowserContext, Promise<unknown>>();
/** Milliseconds within which the browser must report a new window. */
const patience = 8_000;
/** The browser's own id of a context, read from its first page while that is used already. */
const names = new WeakMap<BrowserContext, Promise<string | undefined>>();

/**
 * Opens a page in a window of its own. The pages of one context are tabs of one window otherwise, of
 * which the browser draws the foremost: the others get a frame a second, and what waits for frames
 * (observers of intersections, lazy images, animations) waits as long.
 */
export function openWindow(context: BrowserContext): Promise<Page> {
  const before = turns.get(context) ?? Promise.resolve();
  const opened = before.then(() => open(context));
  turns.set(
    context,
    opened.catch(() => {}),
  );
  return opened;
}

async function open(context: BrowserContext): Promise<Page> {
  const browser = context.browser();
  const name = await names.get(context);
  // The first page of a context has its window to itself.
  if (name === undefined || !browser) {
    const page = await context.newPage();
    names.set(
      context,
      contextIdOf(context, page).catch(() => undefined),
    );
    return page;
  }
  const cdp = await browser.newBrowserCDPSession();
  try {
    return await openTarget(context, cdp, name);
  } finally {
    await detach(cdp);
  }
}

async function openTarget(
  context: BrowserContext,
  cdp: CDPSession,
  browserContextId: string,
): Promise<Page> {
  // Pages of other tabs are told of as well: this one is known by where it starts.
  const url = `about:blank#${randomUUID()}`;
  const isOurs = (page: Page) => page.url() === url;
  const told = context
    .waitForEvent('page', { predicate: isOurs, timeout: patience })
    .catch(() => undefined);
  const { targetId } = await cdp.send('Target.createTarget', {
    url,
    newWindow: true,
    browserContextId,
  });
  const page = (await told) ?? context.pages().find(isOurs);
  if (page) return page;
  await cdp.send('Target.closeTarget', { targetId }).catch(() => {});
  // Better drawn seldom than not at all.
  return await context.newPage();
}

async function contextIdOf(context: BrowserContext, page: Page): Promise<string | undefined> {
  const cdp = await context.newCDPSession(page);
  try {
    return (await cdp.send('Target.getTargetInfo')).targetInfo.browserContextId;
  } finally {
    await detach(cdp);
  }
}

/** An object that is already gone needs no release. */
async function detach(cdp: CDPSession): Promise<void> {
  await cdp.detach().catch(() => {});
}
