import { keptAddress } from '../../core/address/address.js';
import { gone } from './channel.js';
import type { Channel } from './channel.js';
import { networkWords } from './navigate.js';
import { LateError, within } from './within.js';

/**
 * Loads a page in a tab, until its load event. The tab's page events must have been enabled.
 *
 * @param most milliseconds until the load event must have come
 * @returns what went wrong, in words; `null` when nothing did
 */
export async function loadPage(
  channel: Channel,
  url: string,
  most: number,
): Promise<string | null> {
  try {
    return await within(most, loaded(channel, url), () => 'the load event did not fire in time');
  } catch (error) {
    if (error instanceof LateError) return error.message;
    throw error;
  }
}

async function loaded(channel: Channel, url: string): Promise<string | null> {
  /** The document that the tab shows first, after the redirects of servers. */
  let first: string | undefined;
  let settle: (failure: string | null) => void = () => {};
  const settled = new Promise<string | null>((resolve) => (settle = resolve));
  channel.on('Page.frameNavigated', ({ frame }) => {
    if (frame.parentId !== undefined) return;
    first ??= frame.loaderId;
    if (frame.loaderId !== first)
      settle(`redirects by script before it has loaded: ${keptAddress(frame.url)}`);
  });
  channel.on('Page.loadEventFired', () => {
    if (first !== undefined) settle(null);
  });
  channel.on('Inspector.targetCrashed', () => settle('the page crashed'));
  channel.on(gone, () => settle('the tab was closed'));
  const { errorText, isDownload } = await channel.send('Page.navigate', { url });
  if (isDownload) return 'is a download';
  if (errorText === undefined || errorText === '') return settled;
  const reason = /^net::(ERR_\w+)/.exec(errorText)?.[1];
  return reason ? networkWords(reason) : errorText;
}
