import type { BrowserContext, CDPSession, Page } from 'playwright-core';

/** What opens pages of one context, in turn. */
const turns = new WeakMap<BrowserContext, Promise<unknown>>();
/** Milliseconds that a new window may take to be told of. */
const patience = 5_000;
/** How the browser calls a context; asked of its first page, before that goes anywhere. */
const names = new WeakMap<BrowserContext, string>();

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
  const name = names.get(context);
  // The first page of a context has its window to itself.
  if (name === undefined || !browser) {
    const page = await context.newPage();
    const { browserContextId } = await targetOf(context, page);
    if (browserContextId !== undefined) names.set(context, browserContextId);
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
  const seen: Page[] = [];
  const see = (page: Page) => void seen.push(page);
  context.on('page', see);
  try {
    const { targetId } = await cdp.send('Target.createTarget', {
      url: 'about:blank',
      newWindow: true,
      browserContextId,
    });
    for (;;) {
      // What a page of another tab opens is reported here as well.
      const page =
        seen.shift() ??
        (await context.waitForEvent('page', { timeout: patience }).catch(() => undefined));
      // Better drawn seldom than not at all.
      if (!page) return await context.newPage();
      const target = await targetOf(context, page).catch(() => undefined);
      if (target?.targetId === targetId) return page;
    }
  } finally {
    context.off('page', see);
  }
}

async function targetOf(context: BrowserContext, page: Page) {
  const cdp = await context.newCDPSession(page);
  try {
    return (await cdp.send('Target.getTargetInfo')).targetInfo;
  } finally {
    await detach(cdp);
  }
}

/** What is gone already need not be let go of. */
async function detach(cdp: CDPSession): Promise<void> {
  await cdp.detach().catch(() => {});
}
