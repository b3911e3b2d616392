// Talks to PostgreSQL servers, in a thread of its own: the program waits for each answer.
import pg from 'pg';
import { runAsWorker } from 'synckit';
import type { Asked, Found, Reply, Request } from './messages.js';
import { failureOf, mayPass } from './passing.js';
import { whileReachable } from './reachable.js';

/** Milliseconds until a server must have answered a call to connect. */
const patience = 15_000;

/** A server that starts again, or a network that is cut: so long it is tried. */
const longestPause = 60_000;

// Numbers that JavaScript has no place for do not come up.
const { INT8, NUMERIC, BYTEA } = pg.types.builtins;
for (const type of [INT8, NUMERIC]) pg.types.setTypeParser(type, Number);

const nothing: Found = { rows: [], bytes: [] };

/** The server did not come back in time. */
class GivenUp extends Error {
  constructor(cause: unknown) {
    super('the server did not come back', { cause });
  }
}

/** A connection that is opened again when it was lost, and says so where something was under way. */
class Connection {
  readonly #address: string;
  #client: pg.Client | undefined;
  #isInTransaction = false;
  /** The number of the transaction that is under way, or was when the connection was lost. */
  #transaction: string | undefined;

  constructor(address: string) {
    this.#address = address;
  }

  async open(): Promise<void> {
    await this.#opened();
  }

  get transaction(): string | undefined {
    return this.#transaction;
  }

  /** Sends everything at once; the server does one after the other. */
  async do(all: readonly Asked[]): Promise<Found> {
    // A connection that is lost has taken back what was begun on it.
    if (!this.#client && all.some(({ text }) => text === 'ROLLBACK')) {
      this.#isInTransaction = false;
      return nothing;
    }
    const client = await this.#ready();
    const answers = await whileReachable(
      client,
      Promise.allSettled(
        all.map((one) =>
          one.kind === 'query' ? this.#query(client, one) : this.#exec(client, one.text),
        ),
      ),
    );
    // What was sent behind a statement that failed fails for that.
    const failed = answers.find(({ status }) => status === 'rejected');
    if (failed) throw (failed as PromiseRejectedResult).reason;
    return (answers.at(-1) as PromiseFulfilledResult<Found>).value;
  }

  async #query(
    client: pg.Client,
    { text, values, raw, plan }: Asked & { kind: 'query' },
  ): Promise<Found> {
    const query = { name: `lynx-${plan}`, text, values: [...values] };
    const asked: Promise<pg.QueryResultBase & { rows: unknown[] }> = raw
      ? client.query({ ...query, rowMode: 'array' })
      : client.query<Record<string, unknown>>(query);
    const { rows, fields } = await asked;
    const bytes = fields.flatMap(({ name: column, dataTypeID }, at) =>
      dataTypeID === (BYTEA as number) ? [raw ? at : column] : [],
    );
    return { rows, bytes };
  }

  /** @returns the rows of the last statement that has any */
  async #exec(client: pg.Client, text: string): Promise<Found> {
    const begins = /^BEGIN\b/.test(text);
    if (begins) [this.#isInTransaction, this.#transaction] = [true, undefined];
    if (/^(?:COMMIT|ROLLBACK)\b/.test(text)) this.#isInTransaction = false;
    // Several statements have several results.
    const results = [await client.query<Record<string, unknown>>(text)].flat();
    const rows = results.findLast((result) => result.rows.length > 0)?.rows ?? [];
    if (begins) this.#transaction = rows[0]?.['id'] as string | undefined;
    return { ...nothing, rows };
  }

  async close(): Promise<void> {
    const client = this.#client;
    this.#client = undefined;
    await client?.end().catch(() => {});
  }

  /** Forgets the connection, when it is gone. */
  lose(): void {
    this.#isInTransaction = false;
    const client = this.#client;
    this.#client = undefined;
    client?.end().catch(() => {});
  }

  /** A client; a lost one is replaced as long as nothing of a transaction is lost with it. */
  async #ready(): Promise<pg.Client> {
    if (this.#client) return this.#client;
    if (this.#isInTransaction)
      throw Object.assign(new Error('the connection was lost'), { code: '08006' });
    const began = Date.now();
    for (let pause = 200; ; pause = Math.min(5_000, pause * 2))
      try {
        return await this.#opened();
      } catch (error) {
        if (!mayPass(error) || Date.now() - began > longestPause) throw new GivenUp(error);
        await new Promise((resolve) => setTimeout(resolve, pause));
      }
  }

  async #opened(): Promise<pg.Client> {
    const client = new pg.Client({
      connectionString: this.#address,
      connectionTimeoutMillis: patience,
      keepAlive: true,
      keepAliveInitialDelayMillis: 10_000,
      application_name: 'zealous-lynx',
      // What is sent together takes the way to the server once.
      pipeline: true,
    });
    // Without a listener a connection that is lost while nothing is asked would end the thread.
    client.on('error', () => {
      if (this.#client === client) this.#client = undefined;
    });
    try {
      await client.connect();
      // Whatever the server's own settings are.
      await client.query(
        "SET client_encoding = 'UTF8'; SET standard_conforming_strings = on; SET TimeZone = 'UTC'",
      );
    } catch (error) {
      client.end().catch(() => {});
      throw error;
    }
    return (this.#client = client);
  }
}

const connections: Connection[] = [];

runAsWorker(async (request: Request): Promise<Reply> => {
  if (request.kind === 'open') {
    const connection = new Connection(request.address);
    try {
      await connection.open();
    } catch (error) {
      return { failure: failureOf(error, false) };
    }
    return { connection: connections.push(connection) - 1 };
  }
  const connection = connections[request.connection]!;
  try {
    if (request.kind === 'do') return await connection.do(request.all);
    await connection.close();
    return nothing;
  } catch (error) {
    if (error instanceof GivenUp) return { failure: failureOf(error.cause, false) };
    // An answer of the server is none of a connection that is gone; all else is.
    const isAnswer = error instanceof pg.DatabaseError && !mayPass(error);
    if (!isAnswer) connection.lose();
    return { failure: { ...failureOf(error, !isAnswer), transaction: connection.transaction } };
  }
});
