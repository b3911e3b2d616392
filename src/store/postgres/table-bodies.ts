import type pg from 'pg';
import { BodyStore } from '../bodies.js';
import type { Database, Statement } from '../database.js';
import { patiently } from './patiently.js';

/** Connections over which bodies come and go while the program works on something else. */
const connections = 4;

/** Bodies in a table of the database, over connections of their own: nothing waits for megabytes. */
export class TableBodies extends BodyStore {
  readonly #address: string;
  readonly #shown: string;
  readonly #has: Statement;
  readonly #size: Statement;
  #pool: Promise<pg.Pool> | undefined;

  constructor(database: Database, address: string, shown: string) {
    super();
    this.#address = address;
    this.#shown = shown;
    this.#has = database.prepare('SELECT 1 FROM body WHERE content_hash = ?');
    this.#size = database.prepare(
      'SELECT octet_length(bytes) AS size FROM body WHERE content_hash = ?',
    );
  }

  has(contentHash: string): boolean {
    return this.#has.get(contentHash) !== undefined;
  }

  async keep(contentHash: string, body: Uint8Array): Promise<void> {
    if (this.has(contentHash)) return;
    await this.#ask('INSERT INTO body VALUES ($1, $2) ON CONFLICT DO NOTHING', [
      contentHash,
      Buffer.from(body.buffer, body.byteOffset, body.byteLength),
    ]);
  }

  sizeOf(contentHash: string): number {
    const row = this.#size.get(contentHash) as { size: number } | undefined;
    return row?.size ?? 0;
  }

  async delete(contentHash: string): Promise<void> {
    await this.#ask('DELETE FROM body WHERE content_hash = $1', [contentHash]);
  }

  clearDrafts(): void {
    // A database has none.
  }

  close(): void {
    // Connections that nobody uses end by themselves; this only ends them sooner.
    void this.#pool?.then((pool) => pool.end()).catch(() => {});
    this.#pool = undefined;
  }

  protected async bytesOf(contentHash: string): Promise<Buffer | undefined> {
    const rows = await this.#ask('SELECT bytes FROM body WHERE content_hash = $1', [contentHash]);
    return (rows[0] as { bytes: Buffer } | undefined)?.bytes;
  }

  async #ask(text: string, values: unknown[]): Promise<readonly unknown[]> {
    const pool = await (this.#pool ??= this.#open());
    const { rows } = await patiently(this.#shown, () =>
      pool.query<Record<string, unknown>>(text, values),
    );
    return rows;
  }

  async #open(): Promise<pg.Pool> {
    const { Pool } = (await import('pg')).default;
    const pool = new Pool({
      connectionString: this.#address,
      max: connections,
      allowExitOnIdle: true,
      keepAlive: true,
      application_name: 'zealous-lynx bodies',
    });
    // One that is lost while nobody uses it is replaced when somebody does.
    pool.on('error', () => {});
    return pool;
  }
}
