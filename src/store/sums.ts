import type { Database, Statement } from './database.js';

/** What rankings sum up of finished surveys: documents by name, made by one version of the program on one basis. */
export class SumStore {
  readonly #insert: Statement;
  readonly #one: Statement;
  readonly #known: Statement;
  readonly #others: Statement;
  readonly #some: Statement;

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO summed (survey_id, basis, name, document) VALUES (?, ?, ?, ?)
       ON CONFLICT (survey_id, basis, name) DO UPDATE SET document = excluded.document`,
    );
    this.#one = database.prepare(
      'SELECT document FROM summed WHERE survey_id = ? AND basis = ? AND name = ?',
    );
    this.#known = database.prepare(
      'SELECT 1 AS known FROM summed WHERE survey_id = ? AND basis = ? AND name = ?',
    );
    this.#others = database.prepare('DELETE FROM summed WHERE survey_id = ? AND basis <> ?');
    this.#some = database.prepare(
      'DELETE FROM summed WHERE survey_id = ? AND basis = ? AND name LIKE ?',
    );
  }

  /** @param basis what the sums depend on, in a text */
  add(surveyId: number, basis: string, name: string, document: Uint8Array): void {
    this.#insert.run(surveyId, basis, name, document);
  }

  get(surveyId: number, basis: string, name: string): Buffer | undefined {
    const row = this.#one.get(surveyId, basis, name) as { document: Buffer } | undefined;
    return row?.document;
  }

  has(surveyId: number, basis: string, name: string): boolean {
    return this.#known.get(surveyId, basis, name) !== undefined;
  }

  /** Deletes what was summed up of a survey on another basis. */
  keepOnly(surveyId: number, basis: string): void {
    this.#others.run(surveyId, basis);
  }

  /** Deletes the documents whose names begin like this. */
  delete(surveyId: number, basis: string, begin: string): void {
    this.#some.run(surveyId, basis, `${begin}%`);
  }
}
