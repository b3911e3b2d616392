import type { Database } from './database.js';
import type { TermStore } from './terms.js';
import { renumberedList, visitTexts } from './page-document.js';
import type { VisitDocuments } from './page-document.js';

interface VisitRow {
  readonly view: string;
  readonly facts: string;
  readonly resources: string;
  readonly load: string;
}

/** Copies pages with all that their visits found from one survey to another. */
export class TakeOver {
  readonly #database: Database;
  readonly #terms: TermStore;
  readonly #from: number;
  readonly #to: number;
  #texts: ReadonlyMap<number, string> | undefined;

  /** @param from number of the survey that has the pages, and `to` of the one that gets them */
  constructor(database: Database, terms: TermStore, from: number, to: number) {
    this.#database = database;
    this.#terms = terms;
    this.#from = from;
    this.#to = to;
  }

  /** Copies one page, as a part of a transaction. */
  copy(url: string): void {
    const page = this.#database
      .prepare('SELECT id, curves FROM page WHERE survey_id = ? AND url = ?')
      .get(this.#from, url) as { id: number; curves: string };
    const curves = renumberedList(JSON.parse(page.curves) as number[], this.#renumber);
    const { id } = this.#database
      .prepare(
        `INSERT INTO page (survey_id, url, final_url, status, depth, visits, page_group, error,
           bytes_by_type, curves, shape, document, taken_from)
         SELECT ?, url, final_url, status, depth, visits, NULL, error, bytes_by_type, ?, shape,
           document, ? FROM page WHERE id = ? RETURNING id`,
      )
      .get(this.#to, JSON.stringify(curves), this.#from, page.id) as { id: number };
    const visits = this.#database
      .prepare('SELECT view, facts, resources, load FROM visit WHERE page_id = ? ORDER BY rowid')
      .all(page.id) as VisitRow[];
    for (const visit of visits) this.#copyVisit(id, visit);
    this.#database
      .prepare(
        `INSERT INTO screen SELECT ?, view, width, height, boxes, picture FROM screen
         WHERE page_id = ?`,
      )
      .run(id, page.id);
  }

  #copyVisit(page: number, row: VisitRow): void {
    const stored: VisitDocuments = {
      facts: JSON.parse(row.facts) as VisitDocuments['facts'],
      resources: JSON.parse(row.resources) as number[],
      load: JSON.parse(row.load) as VisitDocuments['load'],
    };
    const { responses = [] } = stored.facts;
    this.#noteContents('survey_file', responses);
    this.#noteContents('survey_text', [...stored.resources, ...responses.filter(this.#isVector)]);
    this.#database
      .prepare('INSERT INTO visit VALUES (?, ?, ?, ?, ?)')
      .run(page, row.view, ...visitTexts(stored, this.#renumber));
  }

  /** Names the contents of responses as those of the survey that gets them. */
  #noteContents(table: 'survey_file' | 'survey_text', numbers: readonly number[]): void {
    const add = this.#database.prepare(`INSERT INTO ${table} VALUES (?, ?) ON CONFLICT DO NOTHING`);
    for (const number of numbers) {
      const { contentHash } = this.#response(number);
      if (contentHash !== null) add.run(this.#to, contentHash);
    }
  }

  readonly #isVector = (number: number): boolean =>
    /svg/.test(this.#response(number).declaredType ?? '');

  #response(number: number): { contentHash: string | null; declaredType?: string } {
    return JSON.parse(this.#textOf(number)) as { contentHash: string | null };
  }

  readonly #renumber = (number: number): number =>
    this.#terms.numberOf(this.#to, this.#textOf(number));

  #textOf(number: number): string {
    this.#texts ??= this.#terms.texts(this.#from);
    return this.#texts.get(number) ?? '';
  }
}
