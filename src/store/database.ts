/** A row, by the names of its columns. */
export type Row = Readonly<Record<string, unknown>>;

/** A statement that is run more than once. Its values stand where it has `?`, in their order. */
export interface Statement {
  run(...values: readonly unknown[]): void;
  /** The first row; `undefined` where there is none. */
  get(...values: readonly unknown[]): unknown;
  all(...values: readonly unknown[]): unknown[];
  /** The same statement with lists of columns as its rows. */
  raw(): Statement;
}

/** Types of columns, as both databases know them. */
export type ColumnType = 'text' | 'integer' | 'double precision';

/** What both databases can do, each in its own words. */
export interface Dialect {
  /**
   * A table expression with the columns `key` and `value`: the elements of a JSON list that is given as a text.
   *
   * @param list `?`
   */
  readonly each: (list: string) => string;
  /** An expression for what stands in `value` at a place, where that is a list. */
  readonly element: (at: number, type: ColumnType) => string;
  /** An expression for `value` itself, where that is a text. */
  readonly text: string;
  /** An expression for a member of a JSON object in a column, as a text. */
  readonly member: (column: string, name: string) => string;
  /** An expression for the bytes of a column as hexadecimal digits. */
  readonly digits: (column: string) => string;
}

/**
 * A database as the stores use it: SQLite in the folder of a workspace, or PostgreSQL on a server. Both answer before the
 * call returns, so that what is read and what is written cannot get between one another. Statements are written in the SQL
 * that both know (`RETURNING`, `ON CONFLICT`), with the few expressions of `dialect` where they differ.
 */
export interface Database {
  readonly dialect: Dialect;
  /** Whether every call goes over a network: then one for many things is better than one for each. */
  readonly isFar: boolean;
  prepare(sql: string): Statement;
  /** Runs statements without values. */
  exec(sql: string): void;
  /** All rows of a query, in the way that is fastest for many: as lists of its columns, none of them bytes. */
  rows<Row extends readonly unknown[]>(
    columns: readonly string[],
    query: string,
  ): (...values: readonly unknown[]) => Row[];
  /**
   * Does work in one transaction, whole or not at all. The work may be done again from its beginning, where a connection
   * is lost and what had been done is undone.
   *
   * @param undone called when what was done has been taken back
   * @throws what the work throws
   */
  transaction<Result>(work: () => Result, undone?: () => void): Result;
  /** Does work to see what would come of it, and takes it back. */
  preview<Result>(work: () => Result): Result;
  /** The moment that it is, in ISO 8601, by the clock of the database: those of the machines that share it may differ. */
  now(): string;
  close(): void;
}
