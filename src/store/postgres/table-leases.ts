import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { isRunning } from '../../system/running.js';
import type { Database } from '../database.js';
import { Leases, beat, believed, takenOver } from '../leases.js';
import type { Holder, Lease } from '../leases.js';

interface LeaseRow extends Holder {
  readonly token: string;
  /** Whether its last sign of life, by the clock of the server, is to be believed. */
  readonly lately: boolean;
}

/** A row for each piece of work, with the time of its last sign of life by the clock of the server. */
export class TableLeases extends Leases {
  readonly #database: Database;

  constructor(database: Database) {
    super();
    this.#database = database;
  }

  take(name: string): Lease {
    const token = randomUUID();
    const add = this.#database.prepare(
      `INSERT INTO lease VALUES (?, ?, ?, ?, clock_timestamp())
       ON CONFLICT DO NOTHING`,
    );
    const own = this.#database.prepare('SELECT 1 FROM lease WHERE name = ? AND token = ?');
    for (;;) {
      add.run(name, process.pid, hostname(), token);
      // Asked instead of believed: the answer of a row that was added may have been lost.
      if (own.get(name, token)) break;
      this.refuse((other) => other.name === name);
      const dead = this.#rows().find((row) => row.name === name && !isAlive(row));
      if (dead)
        this.#database
          .prepare('DELETE FROM lease WHERE name = ? AND token = ?')
          .run(name, dead.token);
    }
    const live = this.#database.prepare(
      'UPDATE lease SET seen_at = clock_timestamp() WHERE name = ? AND token = ?',
    );
    // Whoever takes it over waits until a transaction that holds it has ended.
    const held = this.#database.prepare(
      'SELECT 1 FROM lease WHERE name = ? AND token = ? FOR SHARE',
    );
    const timer = setInterval(() => {
      try {
        live.run(name, token);
      } catch {
        // The server is gone: the work itself will say so.
      }
    }, beat);
    timer.unref();
    return {
      confirm: () => {
        if (!held.get(name, token)) throw takenOver(name);
      },
      release: () => {
        clearInterval(timer);
        this.#database.prepare('DELETE FROM lease WHERE name = ? AND token = ?').run(name, token);
      },
    };
  }

  protected holders(): Holder[] {
    return this.#rows().filter(isAlive);
  }

  #rows(): LeaseRow[] {
    return this.#database
      .prepare(
        `SELECT name, pid, host, token,
           seen_at > clock_timestamp() - ${believed} * interval '1 millisecond' AS lately FROM lease`,
      )
      .all() as LeaseRow[];
  }
}

function isAlive({ host, pid, lately }: LeaseRow): boolean {
  return lately && (host !== hostname() || isRunning(pid));
}
