import Queue from 'yocto-queue';
import type { DuePage } from '../core/survey/survey.js';

/** Pages that are due, those nearest to a start first, and of those the ones that were found first. */
export class NearestFirst {
  /** A queue for each depth that has pages. What is taken from the front of a list of many thousands moves all the others. */
  readonly #depths = new Map<number, Queue<DuePage>>();
  #nearest = Infinity;
  #size = 0;

  get size(): number {
    return this.#size;
  }

  /** The links between a start and the next page; `Infinity` where there is none. */
  get depth(): number {
    return this.#nearest;
  }

  add(due: DuePage): void {
    const queue = this.#depths.get(due.depth) ?? new Queue();
    this.#depths.set(due.depth, queue);
    queue.enqueue(due);
    this.#nearest = Math.min(this.#nearest, due.depth);
    this.#size++;
  }

  take(): DuePage | undefined {
    const queue = this.#depths.get(this.#nearest);
    const due = queue?.dequeue();
    if (!queue || !due) return undefined;
    this.#size--;
    if (queue.size > 0) return due;
    this.#depths.delete(this.#nearest);
    this.#nearest = Infinity;
    for (const depth of this.#depths.keys()) this.#nearest = Math.min(this.#nearest, depth);
    return due;
  }

  *[Symbol.iterator](): Generator<DuePage> {
    const depths = [...this.#depths].sort(([one], [other]) => one - other);
    for (const [, queue] of depths) yield* queue;
  }
}
