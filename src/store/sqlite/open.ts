import { closeSync, existsSync, openSync, statSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join, relative } from 'node:path';
import Libsql from 'libsql';
import { LynxError, WorkspaceError, messageOf } from '../../core/base/errors.js';
import { makeFolder } from '../../system/make-folder.js';
import { migrations, schemaVersion } from '../schema.js';
import type { WorkspacePlace } from '../place.js';
import { SqliteDatabase } from './database.js';
import { FolderBodies } from './folder-bodies.js';
import { FolderLeases } from './folder-leases.js';
import { databaseProblems } from './problems.js';

const fileName = 'workspace.sqlite';

/** Whether there is a workspace in a folder. */
export function isWorkspaceFolder(folder: string): boolean {
  return existsSync(join(folder, fileName));
}

/**
 * Opens a workspace in a folder, and makes it when it is not there: an SQLite file, the bodies of images beside it, and the
 * HAR files of sessions.
 *
 * @throws WorkspaceError when it cannot be opened, is no workspace, or was written by a newer version of this tool.
 */
export function openFolder(folder: string): WorkspacePlace {
  try {
    makePrivate(folder);
    const file = new Libsql(join(folder, fileName));
    // First of all: somebody may be making a copy of it, thinning it out, or be the last to close it.
    file.pragma('busy_timeout = 20000');
    file.pragma('journal_mode = WAL');
    file.pragma('synchronous = NORMAL');
    file.pragma('foreign_keys = ON');
    // 32 MB: with SQLite's own 2, a million rows are written to the disk several times over.
    file.pragma('cache_size = -32768');
    const database = new SqliteDatabase(file);
    migrate(file, database, folder);
    return {
      shown: folder,
      folder,
      database,
      leases: new FolderLeases(join(folder, 'leases')),
      bodies: new FolderBodies(join(folder, 'bodies')),
      problems: () => databaseProblems(file),
      tidy: () => void file.exec('VACUUM; PRAGMA wal_checkpoint(TRUNCATE);'),
      size: () => sizeOf(folder),
      close: () => database.close(),
    };
  } catch (error) {
    if (error instanceof LynxError) throw error;
    throw new WorkspaceError(`the workspace ${folder} cannot be opened: ${messageOf(error)}`, {
      hint: 'name another folder with --workspace, or move this one away',
      cause: error,
    });
  }
}

/** Folders of a workspace besides its database. */
const ownFolders = ['bodies', 'har', 'leases', 'pictures', 'recordings'];

/** Makes what is to be kept readable for its owner alone: there are addresses in it that let one in. */
function makePrivate(folder: string): void {
  const file = join(folder, fileName);
  if (existsSync(file)) return;
  // A folder that was there is somebody's: only what is put into it is closed to others.
  if (existsSync(folder)) for (const name of ownFolders) makeFolder(join(folder, name), 0o700);
  else makeFolder(folder, 0o700);
  // What the database writes beside it has the rights of the file itself.
  closeSync(openSync(file, 'a', 0o600));
}

function migrate(file: Libsql.Database, database: SqliteDatabase, folder: string): void {
  const { version } = file
    .prepare('SELECT user_version AS version FROM pragma_user_version')
    .get() as { version: number };
  if (version > schemaVersion)
    throw new WorkspaceError(
      `the workspace ${folder} was written by a newer version of this program ` +
        `(its format is ${version}, this one reads up to ${schemaVersion})`,
      { hint: 'update zealous-lynx, or name another folder with --workspace' },
    );
  for (let next = version; next < schemaVersion; next++)
    database.transaction(() => {
      const migration = migrations[next]!;
      if (typeof migration === 'string') file.exec(migration);
      else migration(file);
      file.pragma(`user_version = ${next + 1}`);
    });
}

async function sizeOf(folder: string): Promise<{ database: number; bodies: number }> {
  const names = await readdir(folder, { recursive: true, withFileTypes: true });
  const size = { database: 0, bodies: 0 };
  for (const entry of names) {
    if (!entry.isFile()) continue;
    const bytes = statSync(join(entry.parentPath, entry.name), { throwIfNoEntry: false })?.size;
    if (entry.name.startsWith(fileName)) size.database += bytes ?? 0;
    else if (relative(folder, entry.parentPath).startsWith('bodies')) size.bodies += bytes ?? 0;
  }
  return size;
}
