import type { Database, Statement } from './database.js';
import { wellFormedJson } from './well-formed-json.js';
import { LRUCache } from 'lru-cache';

/** The most terms cached while pages are stored. */
const remembered = 20_000;

/** The most terms that are read at once. */
const termsAtOnce = 20_000;

/** The texts that the pages of a survey consist of, each once, by number. */
export class TermStore {
  readonly #database: Database;
  readonly #insert: Statement;
  readonly #findAll: Statement;
  readonly #insertAll: Statement;
  readonly #find: Statement;
  readonly #all: (surveyId: number) => [id: number, text: string][];
  readonly #some: (numbers: string) => [id: number, text: string][];
  readonly #known = new LRUCache<string, number>({ max: remembered });

  constructor(database: Database) {
    this.#database = database;
    const { each, element, text } = database.dialect;
    this.#insert = database.prepare(
      'INSERT INTO term (survey_id, text) VALUES (?, ?) RETURNING id',
    );
    this.#find = database.prepare('SELECT id FROM term WHERE survey_id = ? AND text = ?');
    // Each is looked up by the index: how many terms a survey has by now, no plan of a server knows.
    this.#findAll = database.prepare(
      `SELECT (SELECT id FROM term WHERE survey_id = ? AND term.text = ${text}) AS id, ${text} AS text
       FROM ${each('?')}`,
    );
    this.#insertAll = database.prepare(
      `INSERT INTO term (survey_id, text) SELECT ?, ${text} FROM ${each('?')} WHERE true ORDER BY key
       ON CONFLICT DO NOTHING RETURNING id, text`,
    );
    this.#all = database.rows(
      ['id', 'text'],
      'SELECT id, text FROM term WHERE survey_id = ? ORDER BY id',
    );
    this.#some = database.rows(
      ['id', 'text'],
      `SELECT id, text FROM term WHERE id IN (SELECT ${element(0, 'integer')} FROM ${each('?')})`,
    );
  }

  /** The number of a text in a survey; a new one if it has none. */
  numberOf(surveyId: number, text: string): number {
    const key = keyOf(surveyId, text);
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const row = this.#find.get(surveyId, text) as { id: number } | undefined;
    const id = row?.id ?? (this.#insert.get(surveyId, text) as { id: number }).id;
    this.#known.set(key, id);
    return id;
  }

  /**
   * Where every question takes a way over a network, the numbers of many texts are asked for at once.
   *
   * @param use uses the numbers of all the texts, which are of no account yet
   */
  learn(surveyId: number, use: (term: (text: string) => number) => void): void {
    if (!this.#database.isFar) return;
    const texts = new Set<string>();
    use((text) => {
      if (!this.#known.has(keyOf(surveyId, text))) texts.add(text);
      return 0;
    });
    if (texts.size === 0) return;
    this.#note(surveyId, this.#findAll.all(surveyId, wellFormedJson([...texts])));
    // Numbers are given in the order of the texts: so no two programs wait for each other.
    const missing = [...texts].filter((text) => !this.#known.has(keyOf(surveyId, text))).sort();
    if (missing.length > 0)
      this.#note(surveyId, this.#insertAll.all(surveyId, wellFormedJson(missing)));
  }

  #note(surveyId: number, rows: readonly unknown[]): void {
    for (const { id, text } of rows as { id: number | null; text: string }[])
      if (id !== null) this.#known.set(keyOf(surveyId, text), id);
  }

  /** Clears the cache: a failed transaction has rolled its terms back. */
  forget(): void {
    this.#known.clear();
  }

  /** Some texts by their numbers. */
  textsOf(numbers: readonly number[]): Map<number, string> {
    const texts = new Map<number, string>();
    for (let from = 0; from < numbers.length; from += termsAtOnce) {
      const some = numbers.slice(from, from + termsAtOnce).map((number) => [number]);
      for (const [id, text] of this.#some(JSON.stringify(some))) texts.set(id, text);
    }
    return texts;
  }

  /** The texts of a survey by their numbers. */
  texts(surveyId: number): Map<number, string> {
    return new Map(this.#all(surveyId));
  }
}

function keyOf(surveyId: number, text: string): string {
  return `${surveyId} ${text}`;
}
