import pLimit from 'p-limit';
import { messageOf } from '../../core/base/errors.js';
import type { KeepText, TextKind } from '../../browser/network/texts.js';
import { contentHashOf } from '../../images/hash.js';
import type { Workspace } from '../../store/workspace.js';

/** Finds out what can be made of the texts of a survey, each content once, while the crawl goes on. */
export class TextWork {
  readonly #texts: Workspace['texts'];
  readonly #limit = pLimit(1);
  readonly #underWay = new Map<string, Promise<void>>();
  #failure: Error | undefined;

  constructor({ texts }: Pick<Workspace, 'texts'>) {
    this.#texts = texts;
  }

  readonly keep: KeepText = (body, kind) => {
    const contentHash = contentHashOf(body);
    if (!this.#underWay.has(contentHash) && !this.#texts.has(contentHash))
      this.#underWay.set(
        contentHash,
        this.#limit(() => this.#examine(contentHash, body, kind)),
      );
    return contentHash;
  };

  async #examine(contentHash: string, body: Buffer, kind: TextKind): Promise<void> {
    try {
      // Whoever surveys pages without texts is spared the time that this takes to load.
      const { textFactsOf } = await import('../../texts/text-facts.js');
      this.#texts.add(await textFactsOf(contentHash, body, kind));
    } catch (error) {
      // The crawl goes on, and whoever ends it is told.
      this.#failure ??= error instanceof Error ? error : new Error(messageOf(error));
    } finally {
      this.#underWay.delete(contentHash);
    }
  }

  /** @throws whatever kept the facts from being kept. */
  async done(): Promise<void> {
    await Promise.all(this.#underWay.values());
    if (this.#failure) throw this.#failure;
  }
}
