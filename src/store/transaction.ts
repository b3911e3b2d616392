import type Database from 'libsql';

/**
 * Does work in one transaction, whole or not at all.
 *
 * @throws what the work throws: after some failures (a full disk) the database has undone everything by itself, and the
 *   driver's own transactions then report that there is nothing left to undo, and not what was wrong
 */
export function inTransaction<Result>(database: Database.Database, work: () => Result): Result {
  database.exec('BEGIN');
  try {
    const result = work();
    database.exec('COMMIT');
    return result;
  } catch (error) {
    if (database.inTransaction) database.exec('ROLLBACK');
    throw error;
  }
}
