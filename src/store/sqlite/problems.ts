import { isUtf8 } from 'node:buffer';
import type Database from 'libsql';

/** The most problems of one kind that are told. */
const most = 20;

/** What is wrong with a database, in words; empty if it is sound. */
export function databaseProblems(database: Database.Database): string[] {
  // What is no UTF-8 ends the process as soon as the library reads it as text: it is looked for before anything else is.
  const unreadable = unreadableTexts(database);
  if (unreadable.length > 0) return unreadable;
  const rows = database.prepare(`PRAGMA integrity_check(${most})`).raw().all() as [string][];
  const broken = database.prepare('PRAGMA foreign_key_check').raw().all() as unknown[][];
  return [
    ...rows.map(([words]) => words).filter((words) => words !== 'ok'),
    ...broken.slice(0, most).map((row) => `a row of ${String(row[0])} belongs to nothing`),
  ];
}

/** The columns with texts that are no UTF-8, which damage alone can make of them. */
function unreadableTexts(database: Database.Database): string[] {
  return textColumns(database).flatMap(([table, column]) => {
    const rows = database
      .prepare(`SELECT CAST(${column} AS BLOB) FROM ${table} WHERE typeof(${column}) = 'text'`)
      .raw()
      .iterate() as IterableIterator<[Buffer]>;
    let damaged = 0;
    for (const [bytes] of rows) if (!isUtf8(bytes)) damaged++;
    if (damaged === 0) return [];
    return [
      `${damaged} of the texts in ${table}.${column} ${damaged === 1 ? 'is' : 'are'} no text`,
    ];
  });
}

/** Tables and their columns that may hold texts; their names are plain words. */
function textColumns(database: Database.Database): [table: string, column: string][] {
  return database
    .prepare(
      `SELECT t.name, c.name FROM pragma_table_list AS t, pragma_table_info(t.name) AS c
       WHERE t.schema = 'main' AND t.type = 'table' AND t.name NOT LIKE 'sqlite_%' AND c.type = 'TEXT'`,
    )
    .raw()
    .all() as [string, string][];
}
