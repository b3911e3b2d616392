import type { Database, Statement } from './database.js';
import type { TextFacts } from '../core/survey/resource.js';

type Stored = Omit<TextFacts, 'contentHash'> & { readonly revision?: number };

/** Rises when more is found out of a text. */
const revision = 2;

/** What can be said of texts, each content once, shared by all surveys. */
export class TextStore {
  readonly #insert: Statement;
  readonly #has: Statement;
  readonly #ofSurvey: Statement;

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO text_file (content_hash, facts) VALUES (?, ?)
       ON CONFLICT (content_hash) DO UPDATE SET facts = excluded.facts`,
    );
    this.#has = database.prepare(
      `SELECT 1 FROM text_file WHERE content_hash = ?
       AND ${database.dialect.member('facts', 'revision')} = ?`,
    );
    this.#ofSurvey = database.prepare(
      'SELECT content_hash, facts FROM survey_text JOIN text_file USING (content_hash) WHERE survey_id = ?',
    );
  }

  add({ contentHash, ...facts }: TextFacts): void {
    this.#insert.run(contentHash, JSON.stringify({ revision, ...facts }));
  }

  /** Whether all is known of a text that this version finds out. */
  has(contentHash: string): boolean {
    return this.#has.get(contentHash, revision) !== undefined;
  }

  /** What can be said of the texts of a survey, by content hash. */
  ofSurvey(surveyId: number): Map<string, TextFacts> {
    const rows = this.#ofSurvey.all(surveyId) as { content_hash: string; facts: string }[];
    return new Map(
      rows.map(({ content_hash: contentHash, facts }) => {
        const { revision: _, ...known } = JSON.parse(facts) as Stored;
        return [contentHash, { contentHash, ...known }];
      }),
    );
  }
}
