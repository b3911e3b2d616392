import { readFileSync } from 'node:fs';
import type { BrowserContext, BrowserContextOptions } from 'playwright-core';
import { accessHeaders } from '../../core/address/access.js';
import type { Access } from '../../core/address/access.js';
import { NotFoundError, UsageError, messageOf } from '../../core/base/errors.js';
import type { Channel } from './channel.js';

/** What servers are told of the visitor, and what they are believed. */
export interface VisitorSettings {
  /** The user agent; without it, the browser's own. */
  readonly userAgent?: string | undefined;
  /** Credentials for the hosts that require them. */
  readonly accesses?: readonly Access[] | undefined;
  /** A file of cookies and local storage saved by a browser. */
  readonly browserState?: string | undefined;
  /** Accepts certificates that do not verify. */
  readonly anyCertificate?: boolean | undefined;
}

/** Puts the cookies of all accesses into a context, each for its own hosts. */
export async function addCookies(
  context: BrowserContext,
  accesses: readonly Access[],
): Promise<void> {
  const cookies = cookiesOf(accesses);
  if (cookies.length > 0) await context.addCookies(cookies);
}

/** The cookies of all accesses, each for its own hosts. */
export function cookiesOf(accesses: readonly Access[]): AccessCookie[] {
  return accesses.flatMap(({ host, cookies = {} }) =>
    Object.entries(cookies).map(([name, value]) => ({
      name,
      value,
      // A leading dot means the host and all below it; none, the host alone.
      ...(host.startsWith('*.')
        ? { domain: host.slice(1), path: '/' }
        : { url: `http://${host}/` }),
    })),
  );
}

interface AccessCookie {
  readonly name: string;
  readonly value: string;
  readonly domain?: string;
  readonly path?: string;
  readonly url?: string;
}

/**
 * Cookies and local storage as a browser saved them: a JSON file with `cookies`, and `origins` with their
 * `localStorage`.
 *
 * @throws NotFoundError, UsageError when it cannot be read.
 */
export function readBrowserState(path: string): BrowserState {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (error) {
    throw new NotFoundError(`the browser state ${path} cannot be read: ${messageOf(error)}`);
  }
  try {
    const state = JSON.parse(text) as BrowserState;
    if (Array.isArray(state.cookies) && Array.isArray(state.origins)) return state;
  } catch {
    // What a parser would quote of it may be secret.
  }
  throw new UsageError(`${path} is not a browser state`, {
    hint: 'it must be JSON with the lists cookies and origins, as browser automation saves it',
  });
}

export type BrowserState = NonNullable<Exclude<BrowserContextOptions['storageState'], string>>;

/**
 * Adds the headers of all accesses to the requests of a tab to their hosts, and to no others: a header added
 * to a request is not sent on with its redirects.
 */
export async function sendHeaders(cdp: Channel, accesses: readonly Access[]): Promise<void> {
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
