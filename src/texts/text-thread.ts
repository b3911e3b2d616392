import Tinypool from 'tinypool';
import type { TextFacts } from '../core/survey/resource.js';
import type { ExaminedKind } from './text-facts.js';
import type { TextWorker } from './text-worker.js';

/** Examines texts and fonts in a thread of its own, one at a time, so that whoever asks can go on with other work. */
export class TextThread {
  readonly #pool = new Tinypool({
    filename: new URL('../texts/text-worker.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    // Between two pages there is often a pause.
    idleTimeout: 10_000,
  });

  facts(contentHash: string, body: Buffer, kind: ExaminedKind): Promise<TextFacts> {
    return this.#run('facts', { contentHash, body, kind });
  }

  /** Bytes of a font as WOFF2; `null` where it cannot be made. */
  woff2(body: Buffer): Promise<number | null> {
    return this.#run('woff2', { body });
  }

  /** Bytes of a font as WOFF2 with the glyphs of some characters alone; `null` where it cannot be made. */
  subset(body: Buffer, characters: string): Promise<number | null> {
    return this.#run('subset', { body, characters });
  }

  /** Ends the thread, and with it what it still has to do. */
  async close(): Promise<void> {
    await this.#pool.destroy();
  }

  #run<Name extends keyof TextWorker>(
    name: Name,
    task: Parameters<TextWorker[Name]>[0],
  ): ReturnType<TextWorker[Name]> {
    return this.#pool.run(task, { name }) as ReturnType<TextWorker[Name]>;
  }
}
