import { WorkspaceError } from '../../core/base/errors.js';
import { schemaVersion } from '../schema.js';
import type { WorkspacePlace, WorkspaceSize } from '../place.js';
import { FolderBodies } from '../sqlite/folder-bodies.js';
import { splitAddress } from './address.js';
import { PostgresDatabase } from './database.js';
import { FleetStore } from './fleet.js';
import { firstVersion, serverMigrations } from './schema.js';
import { TableBodies } from './table-bodies.js';
import { TableLeases } from './table-leases.js';

/** The oldest server that says what became of a transaction, and with which the tests were run is newer. */
const oldestServer = 13;

/** The number of the lock under which tables are made: any, but always the same. */
const migrationLock = 7_236_741;

/** Files that programs open stay on the machine that made them. */
const folderOfFiles = '.zealous-lynx';

/** Whether there is a workspace in a database. */
export function isWorkspaceServer(place: string): boolean {
  const database = connected(splitAddress(place).address);
  try {
    return versionOf(database) > 0;
  } finally {
    database.close();
  }
}

/**
 * Opens a workspace in a database on a PostgreSQL server, in the schema that comes first in its search path, and makes its
 * tables when they are not there.
 *
 * @param place address of the database; `bodies` in its query names a folder that all machines share for bodies
 * @throws WorkspaceError when the server cannot be reached, lets nobody in, is too old, or has a workspace of a newer
 *   version of this tool.
 */
export function openServer(place: string): WorkspacePlace {
  const { address, bodiesFolder } = splitAddress(place);
  const database = connected(address);
  try {
    migrate(database);
    const table = new TableBodies(database, address, database.shown);
    const bodies = bodiesFolder === null ? table : new FolderBodies(bodiesFolder);
    return {
      shown: database.shown,
      folder: folderOfFiles,
      database,
      leases: new TableLeases(database),
      bodies,
      fleet: { store: new FleetStore(database), address },
      // The server holds its rules by itself.
      problems: () => [],
      tidy: () => {},
      size: () => Promise.resolve(sizeOf(database)),
      close: () => {
        table.close();
        database.close();
      },
    };
  } catch (error) {
    database.close();
    throw error;
  }
}

function connected(address: string): PostgresDatabase {
  const database = new PostgresDatabase(address);
  const { version } = database
    .prepare("SELECT CAST(current_setting('server_version_num') AS integer) AS version")
    .get() as { version: number };
  if (version >= oldestServer * 10_000) return database;
  database.close();
  throw new WorkspaceError(
    `${database.shown}: the server is PostgreSQL ${Math.floor(version / 10_000)}`,
    { hint: `use PostgreSQL ${oldestServer} or newer` },
  );
}

/** The version of the tables; 0 where there are none. */
function versionOf(database: PostgresDatabase): number {
  const { found } = database
    .prepare("SELECT to_regclass('workspace') IS NOT NULL AS found")
    .get() as { found: boolean };
  if (!found) return 0;
  const row = database.prepare('SELECT version FROM workspace').get() as
    { version: number } | undefined;
  return row?.version ?? 0;
}

function migrate(database: PostgresDatabase): void {
  if (versionOf(database) < schemaVersion)
    database.transaction(() => {
      // Another program may be about to do the same.
      database.exec(`SELECT pg_advisory_xact_lock(${migrationLock})`);
      const version = versionOf(database);
      if (version >= schemaVersion) return;
      const done = version === 0 ? 0 : version - firstVersion + 1;
      for (const migration of serverMigrations.slice(done)) database.exec(migration);
      database.exec('DELETE FROM workspace');
      database.prepare('INSERT INTO workspace VALUES (?)').run(schemaVersion);
    });
  const version = versionOf(database);
  if (version > schemaVersion)
    throw new WorkspaceError(
      `the workspace ${database.shown} was written by a newer version of this program ` +
        `(its format is ${version}, this one reads up to ${schemaVersion})`,
      { hint: 'update zealous-lynx, or name another workspace with --workspace' },
    );
}

function sizeOf(database: PostgresDatabase): WorkspaceSize {
  const { all, bodies } = database
    .prepare(
      `SELECT coalesce(sum(pg_total_relation_size(c.oid)), 0) AS "all",
         pg_total_relation_size('body') AS bodies
       FROM pg_class c JOIN pg_class w ON w.oid = to_regclass('workspace')
       WHERE c.relnamespace = w.relnamespace AND c.relkind = 'r'`,
    )
    .get() as { all: number; bodies: number };
  return { database: all - bodies, bodies };
}
