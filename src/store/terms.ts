import type Database from 'libsql';
import { LRUCache } from 'lru-cache';
import { allRows } from './all-rows.js';

/** The most terms cached while pages are stored. */
const remembered = 20_000;

/** The texts that the pages of a survey consist of, each once, by number. */
export class TermStore {
  readonly #insert: Database.Statement;
  readonly #find: Database.Statement;
  readonly #all: (surveyId: number) => [id: number, text: string][];
  readonly #known = new LRUCache<string, number>({ max: remembered });

  constructor(database: Database.Database) {
    this.#insert = database.prepare('INSERT INTO term (survey_id, text) VALUES (?, ?)');
    this.#find = database.prepare('SELECT id FROM term WHERE survey_id = ? AND text = ?');
    this.#all = allRows(
      database,
      ['id', 'text'],
      'SELECT id, text FROM term WHERE survey_id = ? ORDER BY id',
    );
  }

  /** The number of a text in a survey; a new one if it has none. */
  numberOf(surveyId: number, text: string): number {
    const key = `${surveyId} ${text}`;
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const row = this.#find.get(surveyId, text) as { id: number } | undefined;
    const id = row?.id ?? Number(this.#insert.run(surveyId, text).lastInsertRowid);
    this.#known.set(key, id);
    return id;
  }

  /** Clears the cache: a failed transaction has rolled its terms back. */
  forget(): void {
    this.#known.clear();
  }

  /** The texts of a survey by their numbers. */
  texts(surveyId: number): Map<number, string> {
    return new Map(this.#all(surveyId));
  }
}
