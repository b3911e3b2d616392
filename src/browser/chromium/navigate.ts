import type { Page } from 'playwright-core';
import { messageOf } from '../../core/base/errors.js';

/** What went wrong with a load, and whether there is still something to measure. */
export interface Trouble {
  readonly words: string;
  readonly fatal: boolean;
  /** Whether another attempt may succeed. */
  readonly passing: boolean;
}

/** Loads a page and waits for its load event, up to the limit. */
export async function navigate(
  page: Page,
  url: string,
  limit: number,
): Promise<Trouble | undefined> {
  try {
    await page.goto(url, { waitUntil: 'load', timeout: limit });
    return undefined;
  } catch (error) {
    const message = messageOf(error);
    if (/Timeout/.test(message)) {
      const answered = !page.url().startsWith('about:blank');
      const words = `was still loading after ${limit / 1000} s`;
      return { words, fatal: !answered, passing: false };
    }
    if (/Download is starting/.test(message))
      return { words: 'is a download', fatal: true, passing: false };
    const reason = /net::(ERR_\w+)/.exec(message)?.[1];
    const passing = reason !== undefined && passingErrors.has(reason);
    return { words: reason ? networkWords(reason) : message, fatal: true, passing };
  }
}

/** Network errors that may not occur again a moment later. */
const passingErrors: ReadonlySet<string> = new Set([
  'ERR_CONNECTION_REFUSED',
  'ERR_CONNECTION_RESET',
  'ERR_CONNECTION_CLOSED',
  'ERR_CONNECTION_TIMED_OUT',
  'ERR_EMPTY_RESPONSE',
  'ERR_NETWORK_CHANGED',
  'ERR_TIMED_OUT',
]);

const knownErrors: Readonly<Record<string, string>> = {
  ERR_CONNECTION_REFUSED: 'connection refused',
  ERR_SOCKS_CONNECTION_FAILED: 'no response, or no such host',
  ERR_NAME_NOT_RESOLVED: 'no such host',
  ERR_TOO_MANY_REDIRECTS: 'redirect loop',
  ERR_CONNECTION_TIMED_OUT: 'connection timed out',
  ERR_EMPTY_RESPONSE: 'the server closed the connection without a response',
  ERR_CONNECTION_RESET: 'the server reset the connection',
  ERR_ABORTED: 'the load was aborted',
};

/** A network error of the browser in words, with its name for readers who know it. */
export function networkWords(name: string): string {
  if (name.startsWith('ERR_CERT')) return `its certificate does not verify (${name})`;
  return knownErrors[name] ?? name;
}

/** What the driver says of a page that was lost while it was measured, in words; anything else as it is. */
export function lostWords(message: string): string {
  return /context with specified id|context was destroyed|target navigated/i.test(message)
    ? 'it reloaded itself, or went on to another page, while it was measured'
    : message;
}
