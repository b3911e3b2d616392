import type Libsql from 'libsql';
import type { Database, Dialect, Statement } from '../database.js';

const dialect: Dialect = {
  each: (list) => `json_each(${list})`,
  element: (at) => `value ->> ${at}`,
  text: 'value',
  member: (column, name) => `json_extract(${column}, '$.${name}')`,
  digits: (column) => `hex(${column})`,
};

/** An SQLite database, in this process. */
export class SqliteDatabase implements Database {
  readonly dialect = dialect;
  readonly isFar = false;
  readonly #file: Libsql.Database;

  constructor(file: Libsql.Database) {
    this.#file = file;
  }

  prepare(sql: string): Statement {
    return this.#file.prepare(sql);
  }

  exec(sql: string): void {
    this.#file.exec(sql);
  }

  /**
   * The binding takes some microseconds for each row that it hands over: where there are hundreds of thousands, SQLite puts
   * them together as one text of JSON, which takes a fraction of it.
   */
  rows<Row extends readonly unknown[]>(
    columns: readonly string[],
    query: string,
  ): (...values: readonly unknown[]) => Row[] {
    const statement = this.#file
      .prepare(`SELECT json_group_array(json_array(${columns.join(', ')})) AS rows FROM (${query})`)
      .raw();
    return (...values) => {
      const [text] = statement.get(...values) as [string];
      return JSON.parse(text) as Row[];
    };
  }

  /**
   * After some failures (a full disk) the database has undone everything by itself, and the driver's own transactions then
   * report that there is nothing left to undo, and not what was wrong.
   */
  transaction<Result>(work: () => Result, undone?: () => void): Result {
    this.#file.exec('BEGIN');
    try {
      const result = work();
      this.#file.exec('COMMIT');
      return result;
    } catch (error) {
      if (this.#file.inTransaction) this.#file.exec('ROLLBACK');
      undone?.();
      throw error;
    }
  }

  preview<Result>(work: () => Result): Result {
    this.#file.exec('BEGIN');
    try {
      return work();
    } finally {
      this.#file.exec('ROLLBACK');
    }
  }

  now(): string {
    return new Date().toISOString();
  }

  close(): void {
    this.#file.close();
  }
}
