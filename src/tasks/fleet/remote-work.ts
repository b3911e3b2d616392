import { createHash } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import pLimit from 'p-limit';
import { sweptOf } from '../../browser/visit/survey-browser.js';
import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import { failedVisit } from '../../browser/visit/visit-result.js';
import type { Visit } from '../../browser/visit/visit-result.js';
import { messageOf } from '../../core/base/errors.js';
import type { Size } from '../../core/base/size.js';
import type { View } from '../../core/visitors/view.js';
import type { FleetStore } from '../../store/postgres/fleet.js';
import type { Queue } from './queue.js';
import { unpacked } from './task.js';
import type { FleetAnswer, FleetTask } from './task.js';

/** Milliseconds between two looks for answers, and between two looks at the workers. */
const answerBeat = 40;
const workersBeat = 1_000;

/**
 * Milliseconds between two looks for tasks that were taken and not begun, and after how many such a task is given up. Whoever
 * takes one begins it at once, unless the server is away.
 */
const lostBeat = 10_000;
const lostAfter = 30_000;

/** The most pages that are out at the same time. */
const mostPages = 128;

type Asked = FleetTask extends infer Task
  ? Task extends FleetTask
    ? Omit<Task, 'key' | 'survey'>
    : never
  : never;

interface Pending {
  readonly task: FleetTask;
  readonly resolve: (answer: FleetAnswer) => void;
  readonly reject: (error: Error) => void;
}

/** The work of a survey that is given to workers: whoever leads the survey asks, and waits for the answers. */
export class RemoteWork {
  readonly #fleet: FleetStore;
  readonly #queue: Queue;
  readonly #survey: number;
  readonly #measures: string;
  readonly #signal: AbortSignal | undefined;
  readonly #pending = new Map<string, Pending>();
  /** How often tasks that failed for a moment were asked for before. */
  readonly #repeats = new Map<string, number>();
  #capacity = 0;
  #pages = 0;
  #encodes = 0;
  #ended = false;
  readonly #watching: Promise<void>;

  constructor(options: {
    readonly fleet: FleetStore;
    readonly queue: Queue;
    readonly survey: number;
    readonly measures: string;
    readonly signal: AbortSignal | undefined;
  }) {
    this.#fleet = options.fleet;
    this.#queue = options.queue;
    this.#survey = options.survey;
    this.#measures = options.measures;
    this.#signal = options.signal;
    this.#capacity = this.#fleet.capacity(this.#measures);
    this.#watching = this.#watch();
  }

  /** Loads and encodes that the workers take at the same time. */
  get capacity(): number {
    return this.#capacity;
  }

  /** Visitors that have pages loaded by workers, as many at a time as these can take. */
  visitors(views: readonly View[]): PageVisitor[] {
    const visitor: PageVisitor = {
      first: sweptOf(views),
      views: views.map(({ name }, view) => ({
        visit: (url: string) => this.#visit(url, view, name),
      })),
      // How many are loaded at the same time is for each worker to say.
      limit: pLimit(mostPages * views.length),
      hasRoom: () => this.#pages < Math.min(mostPages, this.#capacity),
      onPage: (delta) => (this.#pages += delta),
    };
    return Array.from({ length: mostPages }, () => visitor);
  }

  /** Whether a worker is free to encode. */
  get hasRoomForEncode(): boolean {
    return this.#encodes < this.#capacity;
  }

  /** Has a worker encode a file at its need, and keep what came of it. */
  async encode(contentHash: string, need: Size | null): Promise<void> {
    this.#encodes++;
    try {
      const answer = await this.#ask({ kind: 'encode', contentHash, need });
      if ('failure' in answer && !this.#signal?.aborted) throw new Error(answer.failure);
    } finally {
      this.#encodes--;
    }
  }

  /** Has a worker sum up a part of the survey. @returns whether one did */
  async sum(part: number, closing: string): Promise<boolean> {
    if (this.#capacity === 0) return false;
    return 'done' in (await this.#ask({ kind: 'sum', part, closing }));
  }

  async #visit(url: string, view: number, name: string): Promise<Visit> {
    const answer = await this.#ask({ kind: 'visit', url, view });
    if ('visit' in answer) return answer.visit;
    return failedVisit(
      name,
      url,
      'failure' in answer ? answer.failure : 'no worker visited it',
      {},
    );
  }

  async #ask(asked: Asked): Promise<FleetAnswer> {
    if (this.#signal?.aborted) return stopped;
    const what = createHash('sha256')
      .update(JSON.stringify([this.#survey, asked]))
      .digest('hex');
    const times = this.#repeats.get(what) ?? 0;
    const task: FleetTask = { ...asked, key: `${what}-${times}`, survey: this.#survey };
    const answer = await this.#answerTo(task);
    // The same page is asked for again when it failed for a moment: then the answer is to be another.
    if ('visit' in answer && answer.visit.passing) this.#repeats.set(what, times + 1);
    else this.#repeats.delete(what);
    return answer;
  }

  #answerTo(task: FleetTask): Promise<FleetAnswer> {
    return new Promise((resolve, reject) => {
      this.#pending.set(task.key, { task, resolve, reject });
      this.#queue.add(task).catch((error: unknown) => {
        this.#pending.delete(task.key);
        reject(error instanceof Error ? error : new Error(messageOf(error)));
      });
    });
  }

  /** Looks for answers, and for workers that have come or fallen silent. */
  async #watch(): Promise<void> {
    let [looked, lookedForLost] = [Date.now(), Date.now()];
    while (!this.#ended) {
      await pause(answerBeat);
      if (this.#ended) return;
      try {
        if (this.#signal?.aborted) this.#stop();
        if (this.#pending.size > 0) this.#takeAnswers();
        if (Date.now() - looked < workersBeat) continue;
        looked = Date.now();
        this.#capacity = this.#fleet.capacity(this.#measures);
        if (this.#pending.size === 0) continue;
        this.#askAgain(this.#abandoned());
        if (Date.now() - lookedForLost < lostBeat) continue;
        lookedForLost = Date.now();
        this.#askAgain(await this.#lost());
      } catch (error) {
        for (const { reject } of this.#pending.values())
          reject(error instanceof Error ? error : new Error(messageOf(error)));
        this.#pending.clear();
      }
    }
  }

  #takeAnswers(): void {
    const answers = this.#fleet.answers(this.#survey);
    for (const { key, answer } of answers) {
      this.#pending.get(key)?.resolve(unpacked(answer));
      this.#pending.delete(key);
    }
    this.#fleet.forget(answers.map(({ key }) => key));
  }

  /** Tasks whose workers have fallen silent. */
  #abandoned(): string[] {
    const keys = this.#fleet.abandoned(this.#survey);
    for (const key of keys) this.#fleet.release(key);
    return keys;
  }

  /**
   * Tasks that were taken out of the queue by a worker that never heard of it: its connection, or the worker itself, ended
   * before the answer of the queue had reached it. No sign of life tells of them.
   */
  async #lost(): Promise<string[]> {
    const taken = await this.#queue.taken([...this.#pending.keys()], lostAfter);
    if (taken.length === 0) return [];
    const begun = new Set(this.#fleet.begun(this.#survey));
    return taken.filter((key) => !begun.has(key));
  }

  /** Gives tasks to others. */
  #askAgain(keys: readonly string[]): void {
    for (const key of keys) {
      const pending = this.#pending.get(key);
      if (pending) this.#queue.add(pending.task).catch(pending.reject);
    }
  }

  #stop(): void {
    for (const { resolve } of this.#pending.values()) resolve(stopped);
    this.#pending.clear();
  }

  async close(): Promise<void> {
    this.#ended = true;
    this.#stop();
    await this.#watching;
    await this.#queue.close();
  }
}

const stopped: FleetAnswer = { failure: 'the survey was stopped' };
