import type { Database, Statement } from './database.js';
import type { Fingerprint } from '../core/survey/fingerprint.js';

/** Fingerprints of image files, each content once, shared by all surveys. */
export class FingerprintStore {
  readonly #insert: Statement;
  readonly #ofSurvey: (surveyId: number) => [string, string][];

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO fingerprint VALUES (?, ?)
       ON CONFLICT (content_hash) DO UPDATE SET pixels = excluded.pixels`,
    );
    this.#ofSurvey = database.rows(
      ['content_hash', 'pixels'],
      `SELECT content_hash, ${database.dialect.digits('pixels')} AS pixels
       FROM fingerprint JOIN survey_file USING (content_hash) WHERE survey_id = ?`,
    );
  }

  /** @param pixels `null` for a file that cannot be decoded: it is not tried again */
  add(contentHash: string, pixels: Fingerprint | null): void {
    this.#insert.run(contentHash, Buffer.from(pixels ?? []));
  }

  /** Those of the files of a survey; `null` for a file that cannot be decoded. */
  ofSurvey(surveyId: number): Map<string, Fingerprint | null> {
    return new Map(
      this.#ofSurvey(surveyId).map(([hash, digits]) => [
        hash,
        digits === '' ? null : Buffer.from(digits, 'hex'),
      ]),
    );
  }
}
