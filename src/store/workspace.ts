import { closeSync, existsSync, openSync, statSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join, relative } from 'node:path';
import Database from 'libsql';
import { LynxError, WorkspaceError, messageOf } from '../core/base/errors.js';
import { AlarmStore } from './alarms.js';
import { BodyStore } from './bodies.js';
import { databaseProblems } from './database-problems.js';
import { EncodeStore } from './encodes.js';
import { FigureStore } from './figures.js';
import { FilmStore } from './films.js';
import { FingerprintStore } from './fingerprints.js';
import { ImageStore } from './images.js';
import { Leases } from './leases.js';
import { makeFolder } from '../system/make-folder.js';
import { migrations, schemaVersion } from './schema.js';
import { PageStore } from './pages.js';
import { RoundStore } from './rounds.js';
import { TextStore } from './texts.js';
import { TrialStore } from './trials.js';
import { SessionStore } from './sessions.js';
import { SurveyStore } from './surveys.js';
import { inTransaction } from './transaction.js';

const fileName = 'workspace.sqlite';

/**
 * Everything the tool knows: one folder with an SQLite file, the bodies of images beside it, and the
 * HAR files of sessions. Surveys and sessions live in it under their labels.
 */
export class Workspace {
  readonly folder: string;
  readonly surveys: SurveyStore;
  readonly pages: PageStore;
  readonly images: ImageStore;
  readonly encodes: EncodeStore;
  readonly fingerprints: FingerprintStore;
  readonly sessions: SessionStore;
  readonly films: FilmStore;
  readonly trials: TrialStore;
  readonly texts: TextStore;
  readonly figures: FigureStore;
  /** What a watch has done, and what it has raised the alarm about. */
  readonly rounds: RoundStore;
  readonly alarms: AlarmStore;
  readonly bodies: BodyStore;
  /** Bodies of recorded responses, and what fixes have made of them. */
  readonly recordedBodies: BodyStore;
  /** Who is at work in it. */
  readonly leases: Leases;
  readonly #database: Database.Database;

  private constructor(folder: string, database: Database.Database) {
    this.folder = folder;
    this.#database = database;
    this.surveys = new SurveyStore(database);
    this.pages = new PageStore(database);
    this.images = new ImageStore(database);
    this.encodes = new EncodeStore(database);
    this.fingerprints = new FingerprintStore(database);
    this.sessions = new SessionStore(database);
    this.films = new FilmStore(database);
    this.trials = new TrialStore(database);
    this.texts = new TextStore(database);
    this.figures = new FigureStore(database);
    this.rounds = new RoundStore(database);
    this.alarms = new AlarmStore(database);
    this.leases = new Leases(join(folder, 'leases'));
    this.bodies = new BodyStore(join(folder, 'bodies'));
    this.recordedBodies = new BodyStore(join(folder, 'recordings', 'bodies'));
  }

  /**
   * Opens a workspace, and makes it when it is not there.
   *
   * @throws WorkspaceError when it cannot be opened, is no workspace, or was written by a newer
   *   version of this tool.
   */
  static open(folder: string): Workspace {
    try {
      makePrivate(folder);
      const database = new Database(join(folder, fileName));
      database.pragma('journal_mode = WAL');
      database.pragma('synchronous = NORMAL');
      database.pragma('foreign_keys = ON');
      // Somebody may be making a copy of it, or thinning it out.
      database.pragma('busy_timeout = 20000');
      migrate(database, folder);
      return new Workspace(folder, database);
    } catch (error) {
      if (error instanceof LynxError) throw error;
      throw new WorkspaceError(`the workspace ${folder} cannot be opened: ${messageOf(error)}`, {
        hint: 'name another folder with --workspace, or move this one away',
        cause: error,
      });
    }
  }

  static exists(folder: string): boolean {
    return existsSync(join(folder, fileName));
  }

  /** Opens a workspace that must already exist. */
  static openExisting(folder: string): Workspace {
    if (!Workspace.exists(folder))
      throw new WorkspaceError(`there is no workspace in ${folder}`, {
        hint: 'run zealous-lynx survey or clock first, or name the folder with --workspace',
      });
    return Workspace.open(folder);
  }

  /** Bytes on disk: the database, and the bodies of images. */
  async size(): Promise<{ readonly database: number; readonly bodies: number }> {
    const names = await readdir(this.folder, { recursive: true, withFileTypes: true });
    const size = { database: 0, bodies: 0 };
    for (const entry of names) {
      if (!entry.isFile()) continue;
      const bytes = statSync(join(entry.parentPath, entry.name), { throwIfNoEntry: false })?.size;
      if (entry.name.startsWith(fileName)) size.database += bytes ?? 0;
      else if (relative(this.folder, entry.parentPath).startsWith('bodies'))
        size.bodies += bytes ?? 0;
    }
    return size;
  }

  /** What is wrong with the database, in its own words; empty if it is sound. */
  problems(): string[] {
    return databaseProblems(this.#database);
  }

  /** Returns the space of deleted rows to the disk. */
  tidy(): void {
    this.#database.exec('VACUUM; PRAGMA wal_checkpoint(TRUNCATE);');
    this.pages.forget();
  }

  close(): void {
    this.#database.close();
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

function migrate(database: Database.Database, folder: string): void {
  const version = readVersion(database);
  if (version > schemaVersion)
    throw new WorkspaceError(
      `the workspace ${folder} was written by a newer version of this program ` +
        `(its format is ${version}, this one reads up to ${schemaVersion})`,
      { hint: 'update zealous-lynx, or name another folder with --workspace' },
    );
  for (let next = version; next < schemaVersion; next++)
    inTransaction(database, () => {
      const migration = migrations[next]!;
      if (typeof migration === 'string') database.exec(migration);
      else migration(database);
      database.pragma(`user_version = ${next + 1}`);
    });
}

function readVersion(database: Database.Database): number {
  const row = database.prepare('SELECT user_version AS version FROM pragma_user_version').get() as {
    version: number;
  };
  return row.version;
}
