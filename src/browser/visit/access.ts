import { readFileSync } from 'node:fs';
import type { BrowserContext, BrowserContextOptions, CDPSession } from 'playwright-core';
import { accessHeaders } from '../../core/address/access.js';
import type { Access } from '../../core/address/access.js';
import { NotFoundError, UsageError, messageOf } from '../../core/base/errors.js';

/** Puts the cookies of all accesses into a context, each for its own hosts. */
export async function addCookies(
  context: BrowserContext,
  accesses: readonly Access[],
): Promise<void> {
  const cookies = accesses.flatMap(({ host, cookies = {} }) =>
    Object.entries(cookies).map(([name, value]) => ({
      name,
      value,
      // A leading dot means the host and all below it; none, the host alone.
      ...(host.startsWith('*.')
        ? { domain: host.slice(1), path: '/' }
        : { url: `http://${host}/` }),
    })),
  );
  if (cookies.length > 0) await context.addCookies(cookies);
}

/**
 * Cookies and local storage as a browser saved them: a JSON file with `cookies`, and `origins` with their
 * `localStorage`.
 *
 * @throws NotFoundError, UsageError when it cannot be read.
 */
export function readBrowserState(path: string): NonNullable<BrowserState> {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (error) {
    throw new NotFoundError(`the browser state ${path} cannot be read: ${messageOf(error)}`);
  }
  try {
    const state = JSON.parse(text) as NonNullable<BrowserState>;
    if (Array.isArray(state.cookies) && Array.isArray(state.origins)) return state;
  } catch {
    // What a parser would quote of it may be secret.
  }
  throw new UsageError(`${path} is not a browser state`, {
    hint: 'it must be JSON with the lists cookies and origins, as browser automation saves it',
  });
}

type BrowserState = Exclude<BrowserContextOptions['storageState'], string>;

/**
 * Adds the headers of all accesses to the requests of a tab to their hosts, and to no others: a header added
 * to a request is not sent on with its redirects.
 */
export async function sendHeaders(cdp: CDPSession, accesses: readonly Access[]): Promise<void> {
  const hosts = accesses.filter(({ basic, headers }) => basic || headers).map(({ host }) => host);
  if (hosts.length === 0) return;
  cdp.on('Fetch.requestPaused', ({ requestId, request }) => {
    const added = accessHeaders(accesses, request.url);
    const own = Object.entries(request.headers).filter(([name]) => !(name.toLowerCase() in added));
    const headers = [...own, ...Object.entries(added)].map(([name, value]) => ({ name, value }));
    const change = Object.keys(added).length > 0 ? { headers } : {};
    void cdp.send('Fetch.continueRequest', { requestId, ...change }).catch(() => {});
  });
  const patterns = hosts.flatMap((host) => [`*://${host}/*`, `*://${host}:*/*`]);
  await cdp.send('Fetch.enable', { patterns: patterns.map((urlPattern) => ({ urlPattern })) });
}
