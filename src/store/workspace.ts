import { join } from 'node:path';
import { WorkspaceError } from '../core/base/errors.js';
import { AlarmStore } from './alarms.js';
import type { BodyStore } from './bodies.js';
import { EncodeStore } from './encodes.js';
import { FigureStore } from './figures.js';
import { FilmStore } from './films.js';
import { FingerprintStore } from './fingerprints.js';
import { ImageStore } from './images.js';
import type { Leases } from './leases.js';
import { PageStore } from './pages.js';
import type { WorkspacePlace, WorkspaceSize } from './place.js';
import { isServerAddress, shownAddress } from './postgres/address.js';
import { isWorkspaceServer, openServer } from './postgres/open.js';
import { RoundStore } from './rounds.js';
import { SessionStore } from './sessions.js';
import { FolderBodies } from './sqlite/folder-bodies.js';
import { isWorkspaceFolder, openFolder } from './sqlite/open.js';
import { SumStore } from './sums.js';
import { SurveyStore } from './surveys.js';
import { TextStore } from './texts.js';
import { TrialStore } from './trials.js';

/**
 * Everything the tool knows, in a folder or in a database on a server. Surveys and sessions live in it under their labels.
 */
export class Workspace {
  /** Where it is, for people. */
  readonly shown: string;
  /** The folder for files that programs open: HAR files, recordings. */
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
  /** What rankings sum up of finished surveys. */
  readonly sums: SumStore;
  /** What a watch has done, and what it has raised the alarm about. */
  readonly rounds: RoundStore;
  readonly alarms: AlarmStore;
  readonly bodies: BodyStore;
  /** Bodies of recorded responses, and what fixes have made of them. */
  readonly recordedBodies: BodyStore;
  /** Who is at work in it. */
  readonly leases: Leases;
  /** On a server, what the programs that share it know of each other, and the address of their queue. */
  readonly fleet: WorkspacePlace['fleet'];
  readonly #place: WorkspacePlace;

  private constructor(place: WorkspacePlace) {
    const { folder, database, bodies, leases } = place;
    this.#place = place;
    this.shown = place.shown;
    this.folder = folder;
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
    this.sums = new SumStore(database);
    this.rounds = new RoundStore(database);
    this.alarms = new AlarmStore(database);
    this.leases = leases;
    this.fleet = place.fleet;
    this.bodies = bodies;
    this.recordedBodies = new FolderBodies(join(folder, 'recordings', 'bodies'));
  }

  /**
   * Opens a workspace, and makes it when it is not there.
   *
   * @param place path of a folder, or address of a database: `postgres://user@host/database`
   * @throws WorkspaceError when it cannot be opened, is no workspace, or was written by a newer
   *   version of this tool.
   */
  static open(place: string): Workspace {
    return new Workspace(isServerAddress(place) ? openServer(place) : openFolder(place));
  }

  static exists(place: string): boolean {
    return isServerAddress(place) ? isWorkspaceServer(place) : isWorkspaceFolder(place);
  }

  /** Opens a workspace that must already exist. */
  static openExisting(place: string): Workspace {
    if (Workspace.exists(place)) return Workspace.open(place);
    const shown = isServerAddress(place) ? shownAddress(place) : place;
    throw new WorkspaceError(`there is no workspace in ${shown}`, {
      hint: 'run zealous-lynx survey or clock first, or name the workspace with --workspace',
    });
  }

  /** The moment that it is, in ISO 8601, by the clock that all programs on this workspace share. */
  now(): string {
    return this.#place.database.now();
  }

  size(): Promise<WorkspaceSize> {
    return this.#place.size();
  }

  /** What is wrong with the database, in its own words; empty if it is sound. */
  problems(): string[] {
    return this.#place.problems();
  }

  /** Returns the space of deleted rows to the disk. */
  tidy(): void {
    this.#place.tidy();
    this.pages.forget();
  }

  close(): void {
    this.#place.close();
  }
}
