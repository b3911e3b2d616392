import type { CDPSession, Page } from 'playwright-core';
import { messageOf } from '../../core/base/errors.js';
import type { Channel } from './channel.js';

/**
 * Opens a channel to a page past the driver's own client.
 *
 * The driver is made for clients in other processes and languages: each order and each event passes a serializer, two
 * validators, three timers and two turns of the event loop on its way from one half of it to the other, also where both are
 * in this process. That costs over a millisecond an order, and a survey gives hundreds of them a page. The session behind
 * the client's is the same, and answers the same.
 *
 * @returns the client's own session where this driver has none behind it
 */
export async function openChannel(page: Page): Promise<Channel> {
  const session = await page.context().newCDPSession(page);
  const behind = sessionBehind(session);
  if (!behind) return session;
  // It would go on to pass every event to the client, where nobody listens.
  behind.removeAllListeners('event');
  return new DirectChannel(behind._session);
}

class DirectChannel implements Channel {
  readonly #inner: Channel;
  readonly on: Channel['on'];
  readonly off: Channel['off'];

  constructor(inner: Channel) {
    this.#inner = inner;
    this.on = inner.on.bind(inner);
    this.off = inner.off.bind(inner);
  }

  readonly send: Channel['send'] = async (...order) => {
    try {
      return await this.#inner.send(...order);
    } catch (error) {
      // That a session is closed already is left to the client to put into words.
      const words = messageOf(error) || 'the page or the browser has been closed';
      throw new Error(words, { cause: error });
    }
  };
}

/** A session as the half of the driver knows it that talks to the browser. */
interface SessionBehind {
  readonly _session: Channel;
  removeAllListeners(event: string): void;
}

/** The driver's own way from one half to the other, which it has where both are in one process. */
interface InProcess {
  readonly _connection?: { readonly toImpl?: (object: unknown) => Partial<SessionBehind> };
}

function sessionBehind(session: CDPSession): SessionBehind | undefined {
  const found = (session as unknown as InProcess)._connection?.toImpl?.(session);
  const { _session: inner } = found ?? {};
  const isWhole = [inner?.send, inner?.on, inner?.off, found?.removeAllListeners].every(
    (method) => typeof method === 'function',
  );
  return isWhole ? (found as SessionBehind) : undefined;
}
