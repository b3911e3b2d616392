import type { Database } from './database.js';

/** What trials of pages came to, as the documents that they are printed as. */
export class TrialStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  /** @param label the one that the sessions of both sides begin with */
  add(label: string, madeAt: string, document: object): void {
    this.#database
      .prepare('INSERT INTO trial (label, made_at, document) VALUES (?, ?, ?)')
      .run(label, madeAt, JSON.stringify(document));
  }

  /** The newest first. */
  list(most: number): { readonly label: string; readonly document: unknown }[] {
    const rows = this.#database
      .prepare('SELECT label, document FROM trial ORDER BY id DESC LIMIT ?')
      .all(most) as { label: string; document: string }[];
    return rows.map(({ label, document }) => ({
      label,
      document: JSON.parse(document) as unknown,
    }));
  }
}
