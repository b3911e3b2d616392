import { fileURLToPath } from 'node:url';
import { createSyncFn } from 'synckit';
import type { Database, Dialect, Statement } from '../database.js';
import { shownAddress } from './address.js';
import { errorOf } from './failures.js';
import type { Asked, Failure, Found, Reply, Request } from './messages.js';

const thread = fileURLToPath(new URL('../postgres/connection-thread.js', import.meta.url));

const dialect: Dialect = {
  each: (list) => `json_array_elements(CAST(${list} AS json)) WITH ORDINALITY AS each (value, key)`,
  element: (at, type) => `CAST(value ->> ${at} AS ${type})`,
  text: "value #>> '{}'",
  // A server refuses to read a document that says U+0000 anywhere.
  member: (column, name) => `CAST(replace(${column}, '\\u0000', '\\ufffd') AS json) ->> '${name}'`,
  digits: (column) => `encode(${column}, 'hex')`,
};

/** The connection was lost, and with it what was under way. */
class ConnectionLost extends Error {
  readonly failure: Failure;

  constructor(failure: Failure) {
    super(failure.message);
    this.failure = failure;
  }
}

/** Milliseconds that one answer may take: a large survey that is deleted takes minutes. */
const longest = 30 * 60_000;

/** How many statements wait for the next one whose answer is needed, and the characters and bytes in them, at the most. */
const mostHeld = 200;
const mostHeldLength = 4_000_000;

/** How often work is done again from its beginning, before a server that comes and goes is given up. */
const mostAttempts = 5;

/** A database on a PostgreSQL server. A thread talks to it, while the program waits. */
export class PostgresDatabase implements Database {
  readonly dialect = dialect;
  readonly isFar = true;
  readonly shown: string;
  readonly #ask: (request: Request) => Reply;
  readonly #connection: number;
  readonly #plans = new Map<string, number>();
  #isInTransaction = false;
  /** What was begun in the transaction and has not been sent: nobody waits for its answer. */
  #held: Asked[] = [];
  #heldLength = 0;

  /** @throws WorkspaceError where the server does not let the program in. */
  constructor(address: string) {
    this.shown = shownAddress(address);
    this.#ask = createSyncFn<(request: Request) => Promise<Reply>>(thread, longest);
    const reply = this.#ask({ kind: 'open', address });
    if ('failure' in reply) throw errorOf(reply.failure, this.shown);
    this.#connection = (reply as { connection: number }).connection;
  }

  prepare(sql: string): Statement {
    return new PostgresStatement(this, numbered(sql), false);
  }

  exec(sql: string): void {
    this.#again(() => this.#exec(sql));
  }

  rows<Row extends readonly unknown[]>(
    _: readonly string[],
    query: string,
  ): (...values: readonly unknown[]) => Row[] {
    const statement = this.prepare(query).raw();
    return (...values) => statement.all(...values) as Row[];
  }

  /** Runs a statement; outside a transaction it is run again where the connection was lost. */
  query(text: string, raw: boolean, values: readonly unknown[]): unknown[] {
    const asked = this.#asked(text, raw, values);
    return this.#again(() => this.#do(asked));
  }

  /** Runs a statement whose answer nobody needs: in a transaction it is sent along with the next one. */
  run(text: string, values: readonly unknown[]): void {
    const asked = this.#asked(text, false, values);
    if (this.#isInTransaction) this.#hold(asked);
    else this.#again(() => this.#do(asked));
  }

  #asked(text: string, raw: boolean, values: readonly unknown[]): Asked {
    const plan = this.#plans.get(text) ?? this.#plans.size;
    this.#plans.set(text, plan);
    return { kind: 'query', text, raw, plan, values: values.map(sendable) };
  }

  #hold(asked: Asked): void {
    this.#held.push(asked);
    if (asked.kind === 'query')
      for (const value of asked.values)
        if (typeof value === 'string' || value instanceof Uint8Array)
          this.#heldLength += value.length;
    if (this.#held.length < mostHeld && this.#heldLength < mostHeldLength) return;
    this.#send(this.#held.splice(0));
  }

  transaction<Result>(work: () => Result, undone?: () => void): Result {
    for (let attempt = 1; ; attempt++) {
      let done: { readonly result: Result } | undefined;
      this.#begin();
      try {
        done = { result: work() };
        // Whoever misses the answer to its last word must know by then which transaction it was.
        if (this.#held[0]?.kind === 'exec') this.#send(this.#held.splice(0));
        this.#exec('COMMIT');
        return done.result;
      } catch (error) {
        this.#isInTransaction = false;
        if (!(error instanceof ConnectionLost)) {
          this.#takeBack();
          undone?.();
          throw error;
        }
        // The last word to the server may have reached it, and its answer not: it knows what became of it.
        const { transaction: id } = error.failure;
        if (done && id !== undefined && this.#wasDone(id)) return done.result;
        undone?.();
        if (attempt === mostAttempts) throw errorOf(error.failure, this.shown);
      } finally {
        this.#isInTransaction = false;
      }
    }
  }

  preview<Result>(work: () => Result): Result {
    this.#again(() => this.#exec('BEGIN'));
    this.#isInTransaction = true;
    try {
      return work();
    } finally {
      this.#isInTransaction = false;
      this.#takeBack();
    }
  }

  now(): string {
    const row = this.prepare(
      'SELECT extract(epoch FROM clock_timestamp()) * 1000 AS now',
    ).get() as { now: number | string };
    return new Date(Number(row.now)).toISOString();
  }

  close(): void {
    this.#ask({ kind: 'close', connection: this.#connection });
  }

  /** Begins a transaction with the first statement whose answer is needed. */
  #begin(): void {
    this.#drop();
    this.#isInTransaction = true;
    const text = 'BEGIN; SELECT CAST(pg_current_xact_id() AS text) AS id';
    this.#hold({ kind: 'exec', text });
  }

  /** Forgets what has not been sent. */
  #drop(): void {
    this.#held = [];
    this.#heldLength = 0;
  }

  #wasDone(id: string): boolean {
    for (;;) {
      const [row] = this.#again(() => this.#exec(`SELECT pg_xact_status('${id}') AS status`));
      const { status } = row as { status: string | null };
      if (status !== 'in progress') return status === 'committed';
      this.#exec('SELECT pg_sleep(0.2)');
    }
  }

  #takeBack(): void {
    this.#drop();
    try {
      this.#exec('ROLLBACK');
    } catch (error) {
      // A connection that is lost takes back what was begun on it.
      if (!(error instanceof ConnectionLost)) throw error;
    }
  }

  #exec(text: string): readonly unknown[] {
    return this.#do({ kind: 'exec', text });
  }

  /** Sends what was held, and something whose answer is waited for. */
  #do(asked: Asked): unknown[] {
    return this.#send([...this.#held.splice(0), asked]);
  }

  #send(all: readonly Asked[]): unknown[] {
    this.#heldLength = 0;
    return this.#rowsOf({ kind: 'do', connection: this.#connection, all });
  }

  /** What is no part of a transaction is done again where the connection was lost: it is written so that it may be. */
  #again<Result>(work: () => Result): Result {
    if (this.#isInTransaction) return work();
    for (let attempt = 1; ; attempt++)
      try {
        return work();
      } catch (error) {
        if (!(error instanceof ConnectionLost)) throw error;
        if (attempt === mostAttempts) throw errorOf(error.failure, this.shown);
      }
  }

  #rowsOf(request: Request): unknown[] {
    const reply = this.#ask(request);
    if ('rows' in reply) return withBuffers(reply);
    const { failure } = reply as { failure: Failure };
    if (failure.isLost) throw new ConnectionLost(failure);
    throw errorOf(failure, this.shown);
  }
}

class PostgresStatement implements Statement {
  readonly #database: PostgresDatabase;
  readonly #text: string;
  readonly #raw: boolean;

  constructor(database: PostgresDatabase, text: string, raw: boolean) {
    this.#database = database;
    this.#text = text;
    this.#raw = raw;
  }

  run(...values: readonly unknown[]): void {
    this.#database.run(this.#text, values);
  }

  get(...values: readonly unknown[]): unknown {
    return this.all(...values)[0];
  }

  all(...values: readonly unknown[]): unknown[] {
    return this.#database.query(this.#text, this.#raw, values);
  }

  raw(): Statement {
    return new PostgresStatement(this.#database, this.#text, true);
  }
}

/** Rows with buffers where threads hand over plain bytes. */
function withBuffers({ rows, bytes }: Found): unknown[] {
  for (const row of bytes.length === 0 ? [] : (rows as Record<string, unknown>[]))
    for (const column of bytes) {
      const value = row[column];
      if (value instanceof Uint8Array)
        row[column] = Buffer.from(value.buffer, value.byteOffset, value.byteLength);
    }
  return rows as unknown[];
}

/** Statements with `$1`, `$2` … in place of `?`. */
function numbered(sql: string): string {
  let at = 0;
  return sql.replace(/\?/g, () => `$${++at}`);
}

/** A value as a server takes it: no text may have U+0000 in it. */
function sendable(value: unknown): unknown {
  return typeof value === 'string' ? value.replaceAll('\0', '\uFFFD') : value;
}
