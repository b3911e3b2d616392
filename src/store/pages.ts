import type { Database } from './database.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { readSketch } from '../core/survey/document-sketch.js';
import type { SketchedPage } from '../core/survey/document-sketch.js';
import type {
  DuePage,
  SkippedAddress,
  SurveyFacts,
  SurveyHead,
  SurveyedPage,
} from '../core/survey/survey.js';
import { imageColumns, toImageFile } from './images.js';
import type { ImageRow } from './images.js';
import { readVisits } from './read-survey.js';
import { partWith, tablesOfPart, tablesOfParts } from './survey-part.js';
import type { SurveyPart, SurveyTables } from './survey-part.js';
import { pageColumns, toPage } from './rows.js';
import type { PageRow } from './rows.js';
import { readResources } from './read-resources.js';
import { PageWriter } from './page-writer.js';
import type { PageRecord } from './page-writer.js';
import { ScreenStore } from './screens.js';
import { SealedSurveys } from './sealed-surveys.js';
import { TermStore } from './terms.js';
import type { TextStore } from './texts.js';
import type { Resources } from '../core/survey/resource.js';
import { TakeOver } from './take-over.js';
import { refuseThinned } from './thinned.js';
import { manyRows } from './many-rows.js';
import type { AddRows } from './many-rows.js';

/** What a visit adds to the crawl besides its page. */
export interface Found {
  readonly due: readonly DuePage[];
  readonly skipped: readonly SkippedAddress[];
}

const nothingFound: Found = { due: [], skipped: [] };

/** A page with what its visit adds to the crawl. */
export interface FoundPage {
  readonly record: PageRecord;
  readonly found: Found;
}

/** What a survey found, without what was made of it: encodes, and the pictures that its files are. */
export type SurveyedFacts = Omit<SurveyFacts, 'encoded' | 'pictures'>;

/** The pages of surveys: those that were visited with what they hold, those that are due, those skipped. */
export class PageStore {
  readonly #database: Database;
  readonly #terms: TermStore;
  readonly #sealed: SealedSurveys;
  readonly screens: ScreenStore;
  readonly #writer: PageWriter;
  readonly #addDue: AddRows<DuePage>;
  readonly #addSkipped: AddRows<SkippedAddress>;

  constructor(database: Database) {
    this.#database = database;
    this.#terms = new TermStore(database);
    this.#sealed = new SealedSurveys(database);
    this.screens = new ScreenStore(database);
    this.#writer = new PageWriter(database, this.#terms, this.screens);
    this.#addDue = manyRows(database, 'due', {
      url: 'text',
      depth: 'integer',
      visits: 'double precision',
    });
    this.#addSkipped = manyRows(database, 'skipped', { url: 'text', reason: 'text' });
  }

  /**
   * Stores one page with everything found on it, whole or not at all.
   *
   * @param confirm throws where it must not be stored
   */
  add(
    surveyId: number,
    record: PageRecord,
    found: Found = nothingFound,
    confirm?: () => void,
  ): void {
    this.addAll(surveyId, [{ record, found }], confirm);
  }

  /**
   * Stores pages, each of another address, with everything found on them: all of them or none. On a server that is far
   * quicker than one after the other.
   *
   * @param confirm throws where they must not be stored
   */
  addAll(surveyId: number, pages: readonly FoundPage[], confirm: () => void = () => {}): void {
    const keep = () => {
      confirm();
      this.#sealed.delete(surveyId);
      this.noteFound(surveyId, {
        due: pages.flatMap(({ found }) => found.due),
        skipped: pages.flatMap(({ found }) => found.skipped),
      });
      this.#writer.add(
        surveyId,
        pages.map(({ record }) => record),
      );
    };
    this.#database.transaction(keep, () => this.#terms.forget());
  }

  /**
   * Begins to take pages over from an earlier survey.
   *
   * @returns copies a page with all that its visits found, and stores what was found along with it
   */
  takeOver(fromId: number, toId: number): (url: string, found: Found) => void {
    const takeOver = new TakeOver(this.#database, this.#terms, fromId, toId);
    return (url, found) => {
      this.#database.transaction(
        () => {
          this.#sealed.delete(toId);
          this.noteFound(toId, found);
          takeOver.copy(url);
        },
        () => this.#terms.forget(),
      );
    };
  }

  /** How many pages of a survey were taken over from an earlier one. */
  takenOver(surveyId: number): number {
    const { taken } = this.#database
      .prepare('SELECT count(taken_from) AS taken FROM page WHERE survey_id = ?')
      .get(surveyId) as { taken: number };
    return taken;
  }

  /** Stores what was found along with a page: pages that are due and addresses that are skipped. */
  addFound(surveyId: number, found: Found): void {
    this.#database.transaction(() => this.noteFound(surveyId, found));
  }

  /** The same as a part of a transaction. */
  noteFound(surveyId: number, { due, skipped }: Found): void {
    this.#addDue(surveyId, due);
    this.#addSkipped(surveyId, skipped);
  }

  /** What the visits of a survey were sent besides images. */
  resources(surveyId: number, texts: TextStore): Resources {
    return readResources(this.#database, this.#terms, texts, surveyId);
  }

  /** Forgets the numbers of terms: surveys were deleted, and others may get their numbers. */
  forget(): void {
    this.#terms.forget();
  }

  /** What an interrupted survey knew and had still to do. */
  leftover(surveyId: number) {
    const reached = this.#texts('SELECT final_url AS url FROM page WHERE survey_id = ?', surveyId);
    const skipped = this.#texts('SELECT url FROM skipped WHERE survey_id = ?', surveyId);
    const visited = this.#texts('SELECT url FROM page WHERE survey_id = ?', surveyId);
    const startsReached = this.#texts(
      'SELECT final_url AS url FROM page WHERE survey_id = ? AND depth = 0',
      surveyId,
    );
    const rows = this.#database
      .prepare('SELECT url, depth, visits FROM due WHERE survey_id = ? ORDER BY depth, rowid')
      .all(surveyId) as DuePage[];
    const found = rows.map(({ url, depth, visits }) => ({ url, depth, visits }));
    const settled = new Set([...visited, ...skipped]);
    const due = found.filter(({ url }) => !settled.has(url));
    const documents = this.#database
      .prepare("SELECT document, url FROM page WHERE survey_id = ? AND document <> ''")
      .all(surveyId) as { document: string; url: string }[];
    return { found, reached, startsReached, skipped, due, visited: visited.length, documents };
  }

  #texts(sql: string, surveyId: number): string[] {
    const rows = this.#database.prepare(sql).all(surveyId) as { url: string }[];
    return rows.map(({ url }) => url);
  }

  /**
   * Everything that a survey found.
   *
   * @throws NotFoundError when it was thinned out.
   */
  read(head: SurveyHead): SurveyedFacts {
    const parts = this.parts(head);
    const files = this.files(head.id);
    const tables = tablesOfParts(
      parts > 0 ? this.#sealedParts(head.id, parts) : this.#partsOf(head.id, files),
      files,
    );
    return { head, pages: this.list(head.id), ...tables };
  }

  /**
   * In how many parts a survey can be read; 0 while it goes on, where it can only be read whole.
   *
   * @throws NotFoundError when it was thinned out.
   */
  parts(head: SurveyHead): number {
    refuseThinned(this.#database, head);
    const parts = this.#sealed.parts(head.id);
    // It was finished by a version that did not seal, or sealed in another format.
    if (parts > 0 || head.finishedAt === null) return parts;
    this.seal(head.id);
    return this.#sealed.parts(head.id);
  }

  /** A part of a sealed survey, from 0 on: some of its pages with all their visits. @param files of the whole survey */
  part(surveyId: number, number: number, files: readonly ImageFile[]): SurveyTables {
    return tablesOfPart(this.#sealed.part(surveyId, number), files);
  }

  /**
   * What a sealed survey has of some files alone.
   *
   * @param numbers of the parts that have any of them
   * @param placeOf places in `files` by those in the list of all files of the survey; −1 for others
   */
  ofFiles(
    surveyId: number,
    numbers: readonly number[],
    files: readonly ImageFile[],
    placeOf: Int32Array,
  ): SurveyTables {
    const parts = numbers.map((number) => partWith(this.#sealed.part(surveyId, number), placeOf));
    return tablesOfParts(parts, files);
  }

  *#sealedParts(surveyId: number, parts: number): Generator<SurveyPart> {
    for (let number = 0; number < parts; number++) yield this.#sealed.part(surveyId, number);
  }

  /**
   * Stores what a survey found in the form that is fastest to read; called when all its pages are there.
   *
   * @param most placements and responses of a part, of which each has whole pages
   */
  seal(surveyId: number, most?: number): void {
    this.#sealed.add(surveyId, () => this.#partsOf(surveyId, this.files(surveyId), most));
  }

  #partsOf(surveyId: number, files: readonly ImageFile[], most?: number): Generator<SurveyPart> {
    const places = new Map(files.map(({ contentHash }, place) => [contentHash, place]));
    return readVisits(this.#database, this.#terms, surveyId, places, most);
  }

  /** The image files that a survey found. */
  files(surveyId: number): ImageFile[] {
    const rows = this.#database.rows<ImageRow>(
      imageColumns,
      `SELECT image_file.* FROM survey_file JOIN image_file USING (content_hash)
       WHERE survey_id = ? ORDER BY content_hash`,
    )(surveyId);
    return rows.map(toImageFile);
  }

  /** Content hashes of the texts and fonts that a survey found. */
  textHashes(surveyId: number): string[] {
    return this.#texts('SELECT content_hash AS url FROM survey_text WHERE survey_id = ?', surveyId);
  }

  /** The pages of a survey, nearest to its starts first. */
  list(surveyId: number): SurveyedPage[] {
    const rows = this.#database.rows<PageRow>(
      pageColumns,
      `SELECT ${pageColumns.join(', ')} FROM page WHERE survey_id = ? ORDER BY depth, url`,
    )(surveyId);
    return rows.map(toPage);
  }

  skipped(surveyId: number): SkippedAddress[] {
    const rows = this.#database
      .prepare('SELECT url, reason FROM skipped WHERE survey_id = ? ORDER BY url, rowid')
      .all(surveyId) as SkippedAddress[];
    return rows.map(({ url, reason }) => ({ url, reason }));
  }

  /** The sketches of a survey's pages, in an order that does not depend on that of the visits: the best-known first. */
  sketches(surveyId: number): SketchedPage[] {
    const rows = this.#database
      .prepare('SELECT url, shape FROM page WHERE survey_id = ? ORDER BY depth, length(url), url')
      .all(surveyId) as Record<'url' | 'shape', string>[];
    return rows.map(({ url, shape }) => ({ url, sketch: readSketch(shape) }));
  }

  /** @param groups names of page groups, by the addresses of pages */
  setGroups(surveyId: number, groups: ReadonlyMap<string, string>): void {
    const set = this.#database.prepare(
      'UPDATE page SET page_group = ? WHERE survey_id = ? AND url = ?',
    );
    this.#database.transaction(() => {
      for (const [url, group] of groups) set.run(group, surveyId, url);
    });
  }
}
