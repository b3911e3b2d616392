// Talks to PostgreSQL servers, in a thread of its own: the program waits for each answer.
import pg from 'pg';
import { runAsWorker } from 'synckit';
import type { Found, Reply, Request } from './messages.js';
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

  constructor(address: string) {
    this.#address = address;
  }

  async open(): Promise<void> {
    await this.#opened();
  }

  async query({ text, values, raw, plan }: Request & { kind: 'query' }): Promise<Found> {
    const client = await this.#ready();
    const name = plan === undefined ? {} : { name: `lynx-${plan}` };
    const query = { ...name, text, values: [...values] };
    const asked: Promise<pg.QueryResultBase & { rows: unknown[] }> = raw
      ? client.query({ ...query, rowMode: 'array' })
      : client.query<Record<string, unknown>>(query);
    const { rows, fields } = await whileReachable(client, asked);
    const bytes = fields.flatMap(({ name: column, dataTypeID }, at) =>
      dataTypeID === (BYTEA as number) ? [raw ? at : column] : [],
    );
    return { rows, bytes };
  }

  /** @returns the rows of the last statement that has any */
  async exec(text: string): Promise<Found> {
    // A connection that is lost has taken back what was begun on it.
    if (text === 'ROLLBACK' && !this.#client) {
      this.#isInTransaction = false;
      return nothing;
    }
    const client = await this.#ready();
    if (/^BEGIN\b/.test(text)) this.#isInTransaction = true;
    if (/^(?:COMMIT|ROLLBACK)\b/.test(text)) this.#isInTransaction = false;
    // Several statements have several results.
    const asked = client.query<Record<string, unknown>>(text);
    const results = [await whileReachable(client, asked)].flat();
    return { ...nothing, rows: results.findLast(({ rows }) => rows.length > 0)?.rows ?? [] };
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
    if (request.kind === 'query') return await connection.query(request);
    if (request.kind === 'exec') return await connection.exec(request.text);
    await connection.close();
    return nothing;
  } catch (error) {
    if (error instanceof GivenUp) return { failure: failureOf(error.cause, false) };
    // An answer of the server is none of a connection that is gone; all else is.
    const isAnswer = error instanceof pg.DatabaseError && !mayPass(error);
    if (!isAnswer) connection.lose();
    return { failure: failureOf(error, !isAnswer) };
  }
});
