import type { Workspace } from '../../store/workspace.js';
import type { FoundPage } from '../../store/pages.js';

/** The most pages of one transaction: what is lost with a connection is done again. */
const atOnce = 32;

interface Waiting extends FoundPage {
  readonly resolve: () => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Keeps the pages of a survey. Those that come at the same moment, as the answers of many workers do, share a transaction: a
 * server stores twice as many in a second.
 */
export class KeepPages {
  readonly #pages: Pick<Workspace['pages'], 'addAll'>;
  readonly #survey: number;
  readonly #confirm: () => void;
  #waiting: Waiting[] = [];

  /** @param confirm throws where nothing more must be stored */
  constructor(pages: Pick<Workspace['pages'], 'addAll'>, survey: number, confirm: () => void) {
    this.#pages = pages;
    this.#survey = survey;
    this.#confirm = confirm;
  }

  /** Keeps a page, before anything else that waits for the network goes on. */
  keep(page: FoundPage): Promise<void> {
    return new Promise((resolve, reject) => {
      if (this.#waiting.length === 0) setImmediate(() => this.#write());
      this.#waiting.push({ ...page, resolve, reject });
      if (this.#waiting.length >= atOnce) this.#write();
    });
  }

  #write(): void {
    const waiting = this.#waiting;
    this.#waiting = [];
    if (waiting.length === 0) return;
    try {
      this.#pages.addAll(this.#survey, waiting, this.#confirm);
    } catch (error) {
      for (const { reject } of waiting) reject(error);
      return;
    }
    for (const { resolve } of waiting) resolve();
  }
}
