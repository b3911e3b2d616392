import { gunzipSync, gzipSync } from 'node:zlib';
import type { Database } from './database.js';
import type { SurveyFigures } from '../core/history/figures.js';

/** The figures of surveys, which stay when the rest of a survey is thinned out. */
export class FigureStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  /** @param policy names the policy that the images were judged by */
  add(surveyId: number, policy: string, figures: SurveyFigures): void {
    // The head of a survey may be renamed; it is put in when they are read.
    const { survey: _, ...kept } = figures;
    this.#database
      .prepare(
        `INSERT INTO figures VALUES (?, ?, ?) ON CONFLICT (survey_id)
           DO UPDATE SET policy = excluded.policy, document = excluded.document`,
      )
      .run(surveyId, policy, gzipSync(JSON.stringify(kept)));
  }

  /** The figures of a survey and the policy behind them; `undefined` where none are kept. */
  get(survey: SurveyFigures['survey']): { policy: string; figures: SurveyFigures } | undefined {
    const row = this.#database
      .prepare('SELECT policy, document FROM figures WHERE survey_id = ?')
      .get(survey.id) as { policy: string; document: Buffer } | undefined;
    if (!row) return undefined;
    const kept = JSON.parse(gunzipSync(row.document).toString()) as Omit<SurveyFigures, 'survey'>;
    return { policy: row.policy, figures: { ...kept, survey } };
  }
}
