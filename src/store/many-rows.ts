import type { ColumnType, Database } from './database.js';
import { wellFormedJson } from './well-formed-json.js';

/** Rows that one statement adds. */
const atOnce = 2_000;

/** Adds rows that belong to one thing. */
export type AddRows<Thing> = (ownerId: number, things: readonly Thing[]) => void;

/**
 * Adds rows behind a first column, which is the number of their owner; those that are there already stay as they are. Every
 * call to a database takes some microseconds, and one to a server far more: where there are hundreds of thousands of rows,
 * it takes them out of one text of JSON.
 *
 * @param columns what stands in the columns behind the first, in their order
 */
export function manyRows<Thing>(
  database: Database,
  table: string,
  columns: Readonly<Record<keyof Thing & string, ColumnType>>,
): AddRows<Thing> {
  const names = Object.keys(columns) as (keyof Thing & string)[];
  const { each, element } = database.dialect;
  const values = names.map((name, at) => element(at, columns[name]));
  const statement = database.prepare(
    `INSERT INTO ${table} SELECT ?, ${values.join(', ')} FROM ${each('?')} WHERE true ORDER BY key
     ON CONFLICT DO NOTHING`,
  );
  return (ownerId, things) => {
    for (let from = 0; from < things.length; from += atOnce) {
      const part = things.slice(from, from + atOnce);
      const rows = part.map((thing) => names.map((name) => thing[name]));
      statement.run(ownerId, wellFormedJson(rows));
    }
  };
}
