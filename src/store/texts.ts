import type Database from 'libsql';
import type { TextFacts } from '../core/survey/resource.js';

/** What can be said of texts, each content once, shared by all surveys. */
export class TextStore {
  readonly #insert: Database.Statement;
  readonly #has: Database.Statement;
  readonly #one: Database.Statement;

  constructor(database: Database.Database) {
    this.#insert = database.prepare(
      'INSERT OR REPLACE INTO text_file (content_hash, facts) VALUES (?, ?)',
    );
    this.#has = database.prepare('SELECT 1 FROM text_file WHERE content_hash = ?');
    this.#one = database.prepare('SELECT facts FROM text_file WHERE content_hash = ?');
  }

  add({ contentHash, ...facts }: TextFacts): void {
    this.#insert.run(contentHash, JSON.stringify(facts));
  }

  has(contentHash: string): boolean {
    return this.#has.get(contentHash) !== undefined;
  }

  get(contentHash: string): TextFacts | undefined {
    const row = this.#one.get(contentHash) as { facts: string } | undefined;
    return row && { contentHash, ...(JSON.parse(row.facts) as Omit<TextFacts, 'contentHash'>) };
  }
}
