import type { Database } from './database.js';

/** What became of a round: it was done, the site was down, something failed, it was stopped, or it is under way. */
export type RoundOutcome = 'running' | 'done' | 'down' | 'failed' | 'stopped';

/** One round of a watch. */
export interface Round {
  readonly id: number;
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  readonly finishedAt: string | null;
  readonly outcome: RoundOutcome;
  /** What it came to, in a line. */
  readonly words: string;
}

/** The rounds of the watch of a workspace, which outlive the program that makes them. */
export class RoundStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  begin(startedAt: string): number {
    const { id } = this.#database
      .prepare(
        "INSERT INTO round (started_at, outcome, words) VALUES (?, 'running', '') RETURNING id",
      )
      .get(startedAt) as { id: number };
    return id;
  }

  finish(id: number, finishedAt: string, outcome: RoundOutcome, words: string): void {
    this.#database
      .prepare('UPDATE round SET finished_at = ?, outcome = ?, words = ? WHERE id = ?')
      .run(finishedAt, outcome, words, id);
  }

  /** The newest; `undefined` before the first. */
  last(): Round | undefined {
    return this.list(1)[0];
  }

  /** The newest first. */
  list(most: number): Round[] {
    const rows = this.#database
      .prepare('SELECT * FROM round ORDER BY id DESC LIMIT ?')
      .all(most) as RoundRow[];
    return rows.map(({ id, started_at, finished_at, outcome, words }) => ({
      ...{ id, outcome, words, startedAt: started_at, finishedAt: finished_at },
    }));
  }
}

interface RoundRow {
  readonly id: number;
  readonly started_at: string;
  readonly finished_at: string | null;
  readonly outcome: RoundOutcome;
  readonly words: string;
}
