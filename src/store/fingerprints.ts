import type Database from 'libsql';
import { allRows } from './all-rows.js';
import type { Fingerprint } from '../core/survey/fingerprint.js';

/** Fingerprints of image files, each content once, shared by all surveys. */
export class FingerprintStore {
  readonly #insert: Database.Statement;
  readonly #ofSurvey: (surveyId: number) => [string, string][];

  constructor(database: Database.Database) {
    this.#insert = database.prepare('INSERT OR REPLACE INTO fingerprint VALUES (?, ?)');
    this.#ofSurvey = allRows(
      database,
      ['content_hash', 'pixels'],
      'SELECT content_hash, hex(pixels) AS pixels FROM fingerprint JOIN survey_file USING (content_hash) WHERE survey_id = ?',
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
