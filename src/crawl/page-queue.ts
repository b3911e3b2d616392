import { addressPattern } from '../core/address/address-pattern.js';
import type { DuePage } from '../core/survey/survey.js';
import { NearestFirst } from './nearest-first.js';

/** The addresses of one pattern. */
interface Pattern {
  readonly waiting: NearestFirst;
  /** Pages that were handed out. */
  readonly taken: string[];
  /** Pages that were handed out and are of one template, as far as is known. */
  turns: number;
}

/**
 * The pages that are due. Those that a person named come first, the most visited of them before the others. Then the
 * patterns of addresses take turns, so that a calendar of a thousand pages does not use up what all others need too: the one
 * from which the fewest pages of one template were handed out is next, and of those the one that is nearest to a start.
 */
export class PageQueue {
  /** The named pages, of which those in front of `#nextNamed` were handed out. */
  #named: DuePage[] = [];
  #nextNamed = 0;
  #inOrder = true;
  readonly #patterns = new Map<string, Pattern>();
  #length = 0;

  get length(): number {
    return this.#named.length - this.#nextNamed + this.#length;
  }

  add(due: DuePage): void {
    if (due.depth === 0) {
      this.#named.push(due);
      this.#inOrder = false;
      return;
    }
    this.#length++;
    this.#patternOf(due.url).waiting.add(due);
  }

  /** The next page, or `undefined` if none is due. */
  next(): DuePage | undefined {
    const due = this.#nextOfNamed() ?? this.#nextInTurn();
    if (due) this.note(due.url);
    return due;
  }

  #nextOfNamed(): DuePage | undefined {
    if (!this.#inOrder) {
      this.#named = this.#named
        .slice(this.#nextNamed)
        .sort((a, b) => (b.visits ?? -1) - (a.visits ?? -1));
      this.#nextNamed = 0;
    }
    this.#inOrder = true;
    const due = this.#named[this.#nextNamed];
    if (due) this.#nextNamed++;
    return due;
  }

  /** Counts a page that was visited. */
  note(url: string): void {
    const pattern = this.#patternOf(url);
    pattern.taken.push(url);
    pattern.turns++;
  }

  /**
   * Learns of which templates the pages are that were visited: pages of different templates under one pattern (`/*`) do not
   * use up each other's turns.
   *
   * @param groups names of page groups, by address
   */
  learn(groups: ReadonlyMap<string, string>): void {
    for (const pattern of this.#patterns.values()) {
      const sizes = new Map<string, number>();
      let unknown = 0;
      for (const url of pattern.taken) {
        const group = groups.get(url);
        if (group === undefined) unknown++;
        else sizes.set(group, (sizes.get(group) ?? 0) + 1);
      }
      pattern.turns = Math.max(0, ...sizes.values()) + unknown;
    }
  }

  /** The pages that are still waiting, and of each how many addresses have its pattern and how many were handed out. */
  *left(): Generator<{ due: DuePage; pattern: string; taken: number; all: number }> {
    for (const due of this.#named.slice(this.#nextNamed))
      yield { due, pattern: '', taken: 0, all: 0 };
    for (const [pattern, { waiting, taken }] of this.#patterns)
      for (const due of waiting)
        yield { due, pattern, taken: taken.length, all: taken.length + waiting.size };
  }

  #nextInTurn(): DuePage | undefined {
    let best: Pattern | undefined;
    for (const pattern of this.#patterns.values()) {
      if (pattern.waiting.size === 0) continue;
      const fewer = best === undefined || pattern.turns < best.turns;
      const nearer = best?.turns === pattern.turns && pattern.waiting.depth < best.waiting.depth;
      if (fewer || nearer) best = pattern;
    }
    if (best) this.#length--;
    return best?.waiting.take();
  }

  #patternOf(url: string): Pattern {
    const name = addressPattern(url);
    const known = this.#patterns.get(name) ?? { waiting: new NearestFirst(), taken: [], turns: 0 };
    this.#patterns.set(name, known);
    return known;
  }
}
