import { readFileSync } from 'node:fs';
import { setTimeout as after } from 'node:timers/promises';
import type { Channel } from './channel.js';

/** The probe, bundled by the build for use inside a page. */
const probe = readFileSync(new URL('../in-page.bundle.js', import.meta.url), 'utf8');

/** Milliseconds between two looks at a page that cannot wait. */
const lookEvery = 50;

/**
 * A world of its own inside a page: it shares the document with the page's scripts but none of their
 * globals, so a page that has changed `Array` or `Promise` cannot falsify what is measured.
 */
export class IsolatedWorld {
  readonly #cdp: Channel;
  readonly #contextId: number;
  /** Whether no script may run in the page: then nothing in it can wait. */
  readonly isStill: boolean;

  private constructor(cdp: Channel, contextId: number, isStill: boolean) {
    this.#cdp = cdp;
    this.#contextId = contextId;
    this.isStill = isStill;
  }

  /** Waits until a document is there that a script has taken away for a moment, at most `limit` milliseconds. */
  async untilThere(limit: number): Promise<void> {
    const end = performance.now() + limit;
    while (!(await this.call<boolean>('hasDocument')) && performance.now() < end)
      await after(lookEvery);
  }

  /** Waits until every image has arrived or failed, at most `limit` milliseconds, and says whether they have. */
  async settleImages(limit: number): Promise<boolean> {
    if (!this.isStill) return this.call<boolean>('settleImages', limit);
    const end = performance.now() + limit;
    while (!(await this.call<boolean>('settleImages', 0))) {
      if (performance.now() > end) return false;
      await after(lookEvery);
    }
    return true;
  }

  /**
   * Opens the world in the page that is loaded now, with the probe in it.
   *
   * @param frameId one of its frames; the page itself when it is left out
   * @param isStill whether no script may run in it: then the probe waits for nothing
   */
  static async open(cdp: Channel, frameId?: string, isStill = false): Promise<IsolatedWorld> {
    const { executionContextId } = await cdp.send('Page.createIsolatedWorld', {
      frameId: frameId ?? (await cdp.send('Page.getFrameTree')).frameTree.frame.id,
      worldName: 'zealous-lynx',
    });
    const world = new IsolatedWorld(cdp, executionContextId, isStill);
    await world.#evaluate(`${probe}\n;${isStill ? 'zealousLynx.standStill()' : 'undefined'}`);
    return world;
  }

  /** Calls a function of the probe and returns its result by value. */
  async call<Result>(name: string, ...values: readonly unknown[]): Promise<Result> {
    const list = values.map((value) => JSON.stringify(value)).join(', ');
    return (await this.#evaluate(`zealousLynx.${name}(${list})`)) as Result;
  }

  /** Calls a function of the probe with a node of the document, given by its number in the browser. */
  async callWithNode<Result>(name: string, backendNodeId: number): Promise<Result> {
    const { object } = await this.#cdp.send('DOM.resolveNode', {
      backendNodeId,
      executionContextId: this.#contextId,
    });
    const { result } = await this.#cdp.send('Runtime.callFunctionOn', {
      functionDeclaration: `function () { return zealousLynx.${name}(this); }`,
      objectId: object.objectId!,
      returnByValue: true,
    });
    return result.value as Result;
  }

  async #evaluate(expression: string): Promise<unknown> {
    const { result, exceptionDetails } = await this.#cdp.send('Runtime.evaluate', {
      expression,
      contextId: this.#contextId,
      returnByValue: true,
      awaitPromise: true,
    });
    if (exceptionDetails)
      throw new Error(
        `the page could not be measured: ${exceptionDetails.exception?.description ?? exceptionDetails.text}`,
      );
    return result.value;
  }
}
