import { setTimeout as after } from 'node:timers/promises';
import type { Channel } from '../chromium/channel.js';
import { hastenReactions } from '../in-page/hasten-reactions.js';

/** Milliseconds that a busy machine is given, and between two looks. */
const longestWait = 1_500;
const lookEvery = 20;

/** What the scripts of a page do when the window has got another width: they are made to do it soon. */
export class Reactions {
  readonly #cdp: Channel;
  readonly #areDue: string;

  private constructor(cdp: Channel, areDue: string) {
    this.#cdp = cdp;
    this.#areDue = areDue;
  }

  static async hasten(cdp: Channel): Promise<Reactions> {
    const { result } = await cdp.send('Runtime.evaluate', {
      expression: `(${String(hastenReactions)})()`,
    });
    return new Reactions(cdp, result.objectId ?? '');
  }

  /**
   * Waits until all have been given.
   *
   * @returns whether any was still due
   */
  async wait(): Promise<boolean> {
    const end = performance.now() + longestWait;
    let wereDue = false;
    while (performance.now() < end && (await this.#due())) {
      wereDue = true;
      await after(lookEvery);
    }
    return wereDue;
  }

  /** Never where a page has kept its functions from being called. */
  async #due(): Promise<boolean> {
    if (this.#areDue === '') return false;
    const { result } = await this.#cdp.send('Runtime.callFunctionOn', {
      functionDeclaration: 'function () { return this(); }',
      objectId: this.#areDue,
      returnByValue: true,
    });
    return result.value === true;
  }
}
