import type { Database } from '../database.js';

/** A program that takes work of any survey. */
export interface FleetWorker {
  readonly id: string;
  /** What people call it. */
  readonly name: string;
  readonly host: string;
  readonly pid: number;
  /** Loads at the same time. */
  readonly tabs: number;
  /** What its measurements depend on: two workers with the same may share a survey. */
  readonly measures: string;
}

/** A worker with what it holds. */
export interface BusyWorker extends FleetWorker {
  readonly startedAt: string;
  /** What it is at, in words: addresses of pages, images. */
  readonly doing: readonly string[];
}

/** Milliseconds between two signs of life of a worker, and after how many of silence its work is given to another. */
export const workerBeat = 3_000;
const believed = 15_000;

const isLive = `seen_at > clock_timestamp() - ${believed} * interval '1 millisecond'`;

/**
 * What many programs on one workspace know of each other: the workers, the surveys that want work done, and the answers to
 * what was asked. All times are by the clock of the server.
 */
export class FleetStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  join({ id, name, host, pid, tabs, measures }: FleetWorker): void {
    this.#database
      .prepare(
        `INSERT INTO worker VALUES (?, ?, ?, ?, ?, ?, clock_timestamp(), clock_timestamp())
         ON CONFLICT (id) DO UPDATE SET seen_at = excluded.seen_at`,
      )
      .run(id, name, host, pid, tabs, measures);
  }

  beat(id: string): void {
    this.#database.prepare('UPDATE worker SET seen_at = clock_timestamp() WHERE id = ?').run(id);
  }

  leave(id: string): void {
    this.#database.prepare('DELETE FROM worker WHERE id = ?').run(id);
  }

  /** The workers that are alive, with what they hold. */
  workers(): BusyWorker[] {
    const rows = this.#database
      .prepare(
        `SELECT *, to_json(started_at) #>> '{}' AS begun FROM worker WHERE ${isLive} ORDER BY name, id`,
      )
      .all() as (FleetWorker & { readonly begun: string })[];
    const held = this.#database
      .prepare('SELECT worker_id, what FROM task WHERE answer IS NULL ORDER BY begun_at')
      .all() as { worker_id: string; what: string }[];
    return rows.map(({ id, name, host, pid, tabs, measures, begun }) => ({
      ...{ id, name, host, pid, tabs, measures, startedAt: begun },
      doing: held.filter(({ worker_id }) => worker_id === id).map(({ what }) => what),
    }));
  }

  /** Loads that the live workers take at the same time, of those that measure alike. */
  capacity(measures: string): number {
    const { tabs } = this.#database
      .prepare(`SELECT coalesce(sum(tabs), 0) AS tabs FROM worker WHERE measures = ? AND ${isLive}`)
      .get(measures) as { tabs: number };
    return tabs;
  }

  /** Says how a survey is to be worked on. */
  offer(surveyId: number, settings: object, measures: string): void {
    this.#database
      .prepare(
        `INSERT INTO fleet_survey VALUES (?, ?, ?)
         ON CONFLICT (survey_id) DO UPDATE SET settings = excluded.settings, measures = excluded.measures`,
      )
      .run(surveyId, JSON.stringify(settings), measures);
  }

  /** Takes a survey back: nobody is to work on it. */
  withdraw(surveyId: number): void {
    this.#database.prepare('DELETE FROM fleet_survey WHERE survey_id = ?').run(surveyId);
    this.clear(surveyId);
  }

  /** Forgets the tasks of a survey, whatever became of them. */
  clear(surveyId: number): void {
    this.#database.prepare('DELETE FROM task WHERE survey_id = ?').run(surveyId);
  }

  /** How a survey is to be worked on; `undefined` where it is no work of a fleet, or is gone. */
  settings(surveyId: number): unknown {
    const row = this.#database
      .prepare('SELECT settings FROM fleet_survey WHERE survey_id = ?')
      .get(surveyId) as { settings: string } | undefined;
    return row && (JSON.parse(row.settings) as unknown);
  }

  /** The surveys that were offered and are not finished, the oldest first. */
  unfinished(): { readonly id: number; readonly label: string; readonly measures: string }[] {
    return this.#database
      .prepare(
        `SELECT id, label, measures FROM fleet_survey JOIN survey ON survey.id = survey_id
         WHERE finished_at IS NULL ORDER BY id`,
      )
      .all() as { id: number; label: string; measures: string }[];
  }

  /** How far a survey is: pages kept, those that failed, those kept in the last minute, and pages found so far. */
  progress(surveyId: number): { pages: number; failed: number; lately: number; found: number } {
    return this.#database
      .prepare(
        `SELECT count(*) AS pages, count(error) AS failed,
           count(*) FILTER (WHERE kept_at > clock_timestamp() - interval '1 minute') AS lately,
           (SELECT count(*) FROM due WHERE survey_id = ?) AS found
         FROM page WHERE survey_id = ?`,
      )
      .get(surveyId, surveyId) as { pages: number; failed: number; lately: number; found: number };
  }

  /**
   * Takes a task.
   *
   * @param what says what it is, in words
   * @returns whether it is still to be done
   */
  begin(key: string, surveyId: number, workerId: string, what: string): boolean {
    const rows = this.#database
      .prepare(
        `INSERT INTO task SELECT ?, id, ?, ?, clock_timestamp(), NULL FROM survey WHERE id = ? AND finished_at IS NULL
         ON CONFLICT (key) DO UPDATE SET worker_id = excluded.worker_id, begun_at = excluded.begun_at
           WHERE task.answer IS NULL RETURNING key`,
      )
      .all(key, workerId, what, surveyId);
    return rows.length > 0;
  }

  /** Answers a task, unless another worker has. */
  answer(key: string, answer: Uint8Array): void {
    this.#database
      .prepare('UPDATE task SET answer = ? WHERE key = ? AND answer IS NULL')
      .run(answer, key);
  }

  /** The answers that have come for a survey. */
  answers(surveyId: number): { readonly key: string; readonly answer: Uint8Array }[] {
    return this.#database
      .prepare('SELECT key, answer FROM task WHERE survey_id = ? AND answer IS NOT NULL LIMIT 50')
      .all(surveyId) as { key: string; answer: Uint8Array }[];
  }

  forget(keys: readonly string[]): void {
    if (keys.length === 0) return;
    const { each, text } = this.#database.dialect;
    this.#database
      .prepare(`DELETE FROM task WHERE key IN (SELECT ${text} FROM ${each('?')})`)
      .run(JSON.stringify(keys));
  }

  /** Keys of the tasks of a survey that a worker has begun, and whose answer has not been fetched. */
  begun(surveyId: number): string[] {
    const rows = this.#database
      .prepare('SELECT key FROM task WHERE survey_id = ?')
      .all(surveyId) as { key: string }[];
    return rows.map(({ key }) => key);
  }

  /** Keys of tasks of a survey whose workers have fallen silent. */
  abandoned(surveyId: number): string[] {
    const rows = this.#database
      .prepare(
        `SELECT key FROM task WHERE survey_id = ? AND answer IS NULL
           AND worker_id NOT IN (SELECT id FROM worker WHERE ${isLive})`,
      )
      .all(surveyId) as { key: string }[];
    return rows.map(({ key }) => key);
  }

  /**
   * Takes the next turn at a host, so that all programs together keep its pace.
   *
   * @param pace milliseconds between the beginnings of two page loads
   * @returns milliseconds until it is this one's turn
   */
  turn(host: string, pace: number): number {
    const { wait } = this.#database
      .prepare(
        `INSERT INTO turn VALUES (?, clock_timestamp() + CAST(? AS double precision) * interval '1 millisecond')
         ON CONFLICT (host) DO UPDATE SET free_at = greatest(turn.free_at, clock_timestamp())
           + CAST(? AS double precision) * interval '1 millisecond'
         RETURNING extract(epoch FROM free_at - clock_timestamp()) * 1000 - CAST(? AS double precision) AS wait`,
      )
      .get(host, pace, pace, pace) as { wait: number };
    return Math.max(0, wait);
  }

  /** Gives up a task of a worker that has fallen silent, so that another may take it. */
  release(key: string): void {
    this.#database.prepare('DELETE FROM task WHERE key = ? AND answer IS NULL').run(key);
  }
}
