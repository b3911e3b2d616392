import type { CDPSession } from 'playwright-core';
import { cookiesOf, readBrowserState } from '../chromium/access.js';
import type { BrowserState, VisitorSettings } from '../chromium/access.js';

/** Puts the cookies of a visitor, given and saved, into a browsing context. */
export async function setCookies(
  browser: CDPSession,
  browserContextId: string,
  { accesses = [] }: VisitorSettings,
  state: BrowserState | undefined,
): Promise<void> {
  const saved = (state?.cookies ?? []).map(({ expires, ...cookie }) => ({
    ...cookie,
    // Cookies of a session are saved with −1.
    ...(expires > 0 && { expires }),
  }));
  const cookies = [...saved, ...cookiesOf(accesses)];
  if (cookies.length > 0) await browser.send('Storage.setCookies', { cookies, browserContextId });
}

/** The state that a visitor's browser saved, if there is one. */
export function savedState({ browserState }: VisitorSettings): BrowserState | undefined {
  return browserState === undefined ? undefined : readBrowserState(browserState);
}

/** A script that puts what was saved of the local storage of an origin there, before the page's own scripts run. */
export function storageScript({ origins }: BrowserState): string {
  const kept = Object.fromEntries(
    origins.map(({ origin, localStorage }) => [
      origin,
      localStorage.map(({ name, value }) => [name, value] as const),
    ]),
  );
  return `for (const [name, value] of (${JSON.stringify(kept)})[location.origin] ?? [])
    if (localStorage.getItem(name) === null) localStorage.setItem(name, value);`;
}
