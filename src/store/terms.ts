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

  /** The numbers of texts, in their order. Where every question takes a way over a network, all are asked for at once. */
  numbersOf(surveyId: number, texts: readonly string[]): number[] {
    if (!this.#database.isFar) return texts.map((text) => this.numberOf(surveyId, text));
    const numbers = new Map<string, number>();
    const note = (rows: readonly unknown[]) => {
      for (const { id, text } of rows as { id: number | null; text: string }[])
        if (id !== null) numbers.set(text, id);
    };
    const known = texts.map((text) => this.#known.get(keyOf(surveyId, text)));
    const unknown = texts.filter((_, at) => known[at] === undefined);
    if (unknown.length > 0) note(this.#findAll.all(surveyId, wellFormedJson(unknown)));
    // Numbers are given in the order of the texts: so no two programs wait for each other.
    const missing = unknown.filter((text) => !numbers.has(text)).sort();
    if (missing.length > 0) note(this.#insertAll.all(surveyId, wellFormedJson(missing)));
    for (const [text, id] of numbers) this.#known.set(keyOf(surveyId, text), id);
    // What a database has no letters for it has under another text.
    return texts.map((text, at) => known[at] ?? numbers.get(text) ?? this.numberOf(surveyId, text));
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
