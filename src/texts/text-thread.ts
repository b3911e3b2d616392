import pLimit from 'p-limit';
import { Tinypool } from 'tinypool';
import type { TextFacts } from '../core/survey/resource.js';
import type { StyleRule } from '../core/survey/style-use.js';
import type { ExaminedKind } from './text-facts.js';
import type { TextWorker } from './text-worker.js';

/** Milliseconds that a text or a font may take. */
const patience = 20_000;

/** Examines texts and fonts in a thread of its own, one at a time, so that whoever asks can go on with other work. */
export class TextThread {
  /** The time of one begins when its turn comes. */
  readonly #inTurn = pLimit(1);
  readonly #pool = new Tinypool({
    filename: new URL('../texts/text-worker.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    // Between two pages there is often a pause.
    idleTimeout: 10_000,
  });
  #closed: Promise<void> | undefined;

  constructor() {
    // A thread that fails while nobody waits for it loses nothing: the next text gets another one.
    this.#pool.on('error', () => {});
  }

  /** Starts the thread and loads what it works with, while nothing else is to be done yet. */
  prepare(): void {
    // Begun here and not in its turn, which would wait for what the caller does next.
    const prepared = this.#pool.run(undefined, { name: 'prepare' });
    // What does not load is told by the first text that needs it.
    void this.#inTurn(() => prepared.catch(() => {}));
  }

  /**
   * Facts of a text whose minifier takes too long come without what it would have made.
   *
   * @param rules of a style sheet, where they have been read already
   */
  async facts(
    contentHash: string,
    body: Buffer,
    kind: ExaminedKind,
    rules?: readonly number[],
  ): Promise<TextFacts> {
    const task = { contentHash, body, kind, rules };
    return this.#run('facts', task).catch((error: unknown) => {
      if ((error as Error).name !== 'AbortError') throw error;
      return this.#run('facts', { ...task, minifies: false });
    });
  }

  /** The rules of a style sheet; `undefined` where they take too long. */
  rules(body: Buffer): Promise<readonly StyleRule[] | undefined> {
    return this.#run('rules', { body }).catch((error: unknown) => {
      if ((error as Error).name !== 'AbortError') throw error;
      return undefined;
    });
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
  close(): Promise<void> {
    return (this.#closed ??= this.#pool.destroy());
  }

  #run<Name extends keyof TextWorker>(
    name: Name,
    task: Parameters<TextWorker[Name]>[0],
  ): ReturnType<TextWorker[Name]> {
    return this.#inTurn(() =>
      // One that takes longer is given up with the thread that it holds.
      this.#pool.run(task, { name, signal: AbortSignal.timeout(patience) }),
    ) as ReturnType<TextWorker[Name]>;
  }
}
