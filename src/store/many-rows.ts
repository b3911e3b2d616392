import type Database from 'libsql';

/** Rows that one statement adds. */
const atOnce = 2_000;

/** Adds rows that belong to one thing. */
export type AddRows = (
  ownerId: number,
  rows: readonly (readonly (string | number | null)[])[],
) => void;

/**
 * Adds rows, as lists of their columns behind the first, which is the number of their owner. The binding takes some
 * microseconds for each call: where there are hundreds of thousands of rows, SQLite takes them out of one text of JSON.
 *
 * @param insert the statement up to its values: `INSERT INTO table`
 * @param columns how many columns there are behind the first
 */
export function manyRows(database: Database.Database, insert: string, columns: number): AddRows {
  const values = Array.from({ length: columns }, (_, at) => `value ->> ${at}`);
  const statement = database.prepare(
    `${insert} SELECT ?, ${values.join(', ')} FROM json_each(?) ORDER BY key`,
  );
  return (ownerId, rows) => {
    for (let from = 0; from < rows.length; from += atOnce)
      statement.run(ownerId, JSON.stringify(rows.slice(from, from + atOnce), wellFormed));
  };
}

/** Half a surrogate pair, which JSON can say and UTF-8 cannot, would make a text that nobody can read. */
function wellFormed(_: string, value: unknown): unknown {
  return typeof value === 'string' ? value.replace(/\p{Cs}/gu, '\uFFFD') : value;
}
