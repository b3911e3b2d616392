import { EventEmitter } from 'node:events';
import type { CDPSession } from 'playwright-core';

/** A connection to the browser, to one of its tabs, or to a process behind a tab. */
export type Channel = Pick<CDPSession, 'send' | 'on' | 'off'>;

/**
 * The channels inside another. The driver gives out sessions of the browser and of its own tabs alone: what any other
 * target says comes and goes inside their messages.
 */
export class InnerChannels {
  readonly #outer: Channel;
  readonly #open = new Map<string, InnerChannel>();

  /** @param onEnd called with each channel that ends by itself */
  constructor(outer: Channel, onEnd: (ended: Channel) => void = () => {}) {
    this.#outer = outer;
    outer.on('Target.receivedMessageFromTarget', ({ sessionId, message }) => {
      this.#open.get(sessionId)?.receive(message);
    });
    outer.on('Target.detachedFromTarget', ({ sessionId }) => {
      const channel = this.#open.get(sessionId);
      if (!channel) return;
      this.#open.delete(sessionId);
      channel.close();
      onEnd(channel);
    });
  }

  /** @param sessionId of a target that the outer channel was attached to (`flatten: false`) */
  open(sessionId: string): Channel {
    const channel = new InnerChannel(this.#outer, sessionId);
    this.#open.set(sessionId, channel);
    return channel;
  }

  /** Nothing more will arrive: every pending call is rejected. */
  close(): void {
    for (const channel of this.#open.values()) channel.close();
    this.#open.clear();
  }
}

/** A response of the browser, or an event if it has no number. */
interface Message {
  readonly id?: number;
  readonly method?: string;
  readonly params?: unknown;
  readonly result?: unknown;
  readonly error?: { readonly message: string };
}

interface Waiting {
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: Error) => void;
}

class InnerChannel implements Channel {
  readonly #outer: Channel;
  readonly #sessionId: string;
  readonly #events = new EventEmitter();
  readonly #waiting = new Map<number, Waiting>();
  #sent = 0;

  constructor(outer: Channel, sessionId: string) {
    this.#outer = outer;
    this.#sessionId = sessionId;
  }

  readonly send = (async (method: string, params: object = {}) => {
    const id = ++this.#sent;
    const message = JSON.stringify({ id, method, params });
    const answer = new Promise((resolve, reject) => this.#waiting.set(id, { resolve, reject }));
    // Where sending fails the answer may be given up as well; one of the two is told.
    answer.catch(() => {});
    try {
      await this.#outer.send('Target.sendMessageToTarget', { sessionId: this.#sessionId, message });
    } catch (error) {
      this.#waiting.delete(id);
      throw error;
    }
    return answer;
  }) as Channel['send'];

  readonly on = ((event: string, listen: (params: unknown) => void) => {
    this.#events.on(event, listen);
    return this;
  }) as unknown as Channel['on'];

  readonly off = ((event: string, listen: (params: unknown) => void) => {
    this.#events.off(event, listen);
    return this;
  }) as unknown as Channel['off'];

  receive(text: string): void {
    const { id, method, params, result, error } = JSON.parse(text) as Message;
    if (method !== undefined) return void this.#events.emit(method, params);
    const waiting = this.#waiting.get(id ?? 0);
    this.#waiting.delete(id ?? 0);
    if (error) waiting?.reject(new Error(error.message));
    else waiting?.resolve(result);
  }

  close(): void {
    for (const { reject } of this.#waiting.values()) reject(new Error('the target is gone'));
    this.#waiting.clear();
    this.#events.emit(gone);
  }
}

/** The event of a channel whose target is gone. */
export const gone = Symbol('gone');
