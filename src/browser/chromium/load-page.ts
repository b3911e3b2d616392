import { keptAddress } from '../../core/address/address.js';
import { gone } from './channel.js';
import type { Channel } from './channel.js';
import { networkWords } from './navigate.js';
import { LateError, within } from './within.js';

/** What went wrong with a load. */
export interface LoadTrouble {
  readonly words: string;
  /** Whether it was under way when its time was up: what had arrived by then can be told. */
  readonly isLate: boolean;
}

/**
 * Loads a page in a tab, until its load event. The tab's page events must have been enabled.
 *
 * @param most milliseconds until the load event must have come
 * @returns what went wrong; `null` when nothing did
 */
export async function loadPage(
  channel: Channel,
  url: string,
  most: number,
): Promise<LoadTrouble | null> {
  try {
    const words = await within(
      most,
      loaded(channel, url),
      () => `did not finish loading in ${most / 1000} s`,
    );
    return words === null ? null : { words, isLate: false };
  } catch (error) {
    if (error instanceof LateError) return { words: error.message, isLate: true };
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
  channel.on('Inspector.targetCrashed', () =>
    settle('the page crashed, or was stopped for its memory'),
  );
  channel.on(gone, () => settle('the tab was closed'));
  const { errorText, isDownload } = await channel.send('Page.navigate', { url });
  if (isDownload) return 'is a download';
  if (errorText === undefined || errorText === '') return settled;
  const reason = /^net::(ERR_\w+)/.exec(errorText)?.[1];
  return reason ? networkWords(reason) : errorText;
}
