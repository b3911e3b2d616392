import type { Database } from './database.js';
import { wellFormedJson } from './well-formed-json.js';
import type { Conditions } from '../core/visitors/conditions.js';
import { NotFoundError } from '../core/base/errors.js';
import type { MarkedSession } from '../core/load/marked-session.js';
import { noMarkers } from '../core/load/markers.js';
import type { Markers } from '../core/load/markers.js';
import type { PageRequest, SourceLine } from '../core/load/request.js';
import type { Run, Session } from '../core/load/session.js';

interface SessionRow {
  readonly id: number;
  readonly clocking: number;
  readonly label: string;
  readonly page: string;
  readonly started_at: string;
  readonly conditions: string;
}

/** Sessions of cold loads. Those that one call of `clock` made share a label. */
export class SessionStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  /** Starts sessions, all under one label; by default `clock-` and a number. */
  begin(
    label: string | undefined,
    startedAt: string,
    planned: readonly { readonly page: string; readonly conditions: Conditions }[],
  ): Session[] {
    return this.#database.transaction(() => {
      const { last } = this.#database
        .prepare('SELECT coalesce(max(clocking), 0) AS last FROM session')
        .get() as { last: number };
      const clocking = last + 1;
      const name = label ?? `clock-${clocking}`;
      const add = this.#database.prepare(
        'INSERT INTO session (clocking, label, page, started_at, conditions) VALUES (?, ?, ?, ?, ?) RETURNING id',
      );
      return planned.map(({ page, conditions }) => {
        const { id } = add.get(clocking, name, page, startedAt, JSON.stringify(conditions)) as {
          id: number;
        };
        return { id, label: name, page, startedAt, conditions, runs: [] };
      });
    });
  }

  addRun(sessionId: number, position: number, run: Run): void {
    this.#database
      .prepare('INSERT INTO run VALUES (?, ?, ?)')
      .run(sessionId, position, JSON.stringify(run));
  }

  /**
   * The sessions that the newest call of `clock` with this label made.
   *
   * @throws NotFoundError when there are none.
   */
  find(label: string): Session[] {
    const rows = this.#database
      .prepare(
        `SELECT * FROM session WHERE clocking =
           (SELECT max(clocking) FROM session WHERE label = ?) AND label = ? ORDER BY id`,
      )
      .all(label, label) as SessionRow[];
    if (rows.length > 0) return rows.map((row) => this.#session(row));
    const labels = this.labels();
    throw new NotFoundError(`there is no session ${label}`, {
      hint: labels.length > 0 ? `there are: ${labels.join(', ')}` : 'run zealous-lynx clock first',
    });
  }

  /** Every session of some pages, the oldest first. */
  ofPages(pages: readonly string[]): Session[] {
    const { each, text } = this.#database.dialect;
    const rows = this.#database
      .prepare(`SELECT * FROM session WHERE page IN (SELECT ${text} FROM ${each('?')}) ORDER BY id`)
      .all(wellFormedJson(pages)) as SessionRow[];
    return rows.map((row) => this.#session(row));
  }

  /**
   * The sessions of the pages of some hosts with the markers of their runs, the oldest first.
   *
   * @param isOfHost says of the address of a page whether it is meant
   */
  marked(isOfHost: (page: string) => boolean): MarkedSession[] {
    const { member } = this.#database.dialect;
    const rows = this.#database.prepare('SELECT * FROM session ORDER BY id').all() as SessionRow[];
    const runsOf = this.#database.prepare(
      `SELECT ${member('run', 'markers')} AS markers, ${member('run', 'failure')} AS failure
       FROM run WHERE session_id = ? ORDER BY position`,
    );
    return rows
      .filter(({ page }) => isOfHost(page))
      .map((row) => ({
        ...headOf(row),
        runs: (runsOf.all(row.id) as { markers: string; failure: string | null }[]).map(
          ({ markers, failure }) => ({
            failure,
            markers: { ...noMarkers(), ...(JSON.parse(markers) as Partial<Markers>) },
          }),
        ),
      }));
  }

  labels(): string[] {
    const rows = this.#database
      .prepare('SELECT label FROM session GROUP BY label ORDER BY max(clocking)')
      .all() as { label: string }[];
    return rows.map(({ label }) => label);
  }

  #session(row: SessionRow): Session {
    const runs = this.#database
      .prepare('SELECT run FROM run WHERE session_id = ? ORDER BY position')
      .all(row.id) as { run: string }[];
    return {
      ...headOf(row),
      runs: runs.map(({ run }) => completed(JSON.parse(run) as Run)),
    };
  }
}

function headOf({ id, label, page, started_at, conditions }: SessionRow): Omit<Session, 'runs'> {
  return {
    ...{ id, label, page, startedAt: started_at },
    conditions: JSON.parse(conditions) as Conditions,
  };
}

/** A run in its present form: fields added since it was stored are there, without a value. */
function completed(run: Run): Run {
  const requests = run.requests.map((request): PageRequest => ({
    ...request,
    // Written as the types of today have it; an older workspace may hold less.
    firstPriority: (request.firstPriority as string | undefined) ?? request.priority,
    initiatedBy: (request.initiatedBy as SourceLine | null | undefined) ?? null,
    used: (request.used as boolean | null | undefined) ?? null,
  }));
  return { ...run, requests, markers: { ...noMarkers(), ...run.markers } };
}
