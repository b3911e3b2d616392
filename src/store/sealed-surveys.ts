import type { Database, Statement } from './database.js';
import { record } from '../core/base/record.js';
import { responseColumns, placementColumns } from '../core/survey/survey-tables.js';
import { tablesOf } from './read-survey.js';
import type { SurveyTables, TableParts } from './read-survey.js';

/**
 * The number of the format below. It must grow with every change of what is sealed: the columns, the lists, the
 * facts in them, and the order of visits.
 */
export const sealFormat = 3;

/** The lists that the columns of numbers index, and the lengths of the columns. */
interface SealedLists extends Omit<TableParts, 'placed' | 'answered'> {
  readonly placements: number;
  readonly responses: number;
}

/**
 * The tables of finished surveys as they are in memory: columns of numbers, and one JSON text with the lists
 * they index. Building them from the documents of a million placements takes seconds, reading them a fraction
 * of one. They hold nothing that the documents do not: any change of a survey deletes its seal.
 */
export class SealedSurveys {
  readonly #insert: Statement;
  readonly #one: Statement;
  readonly #delete: Statement;

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO sealed (survey_id, columns, lists, format) VALUES (?, ?, ?, ?)
       ON CONFLICT (survey_id) DO UPDATE SET
         columns = excluded.columns, lists = excluded.lists, format = excluded.format`,
    );
    this.#one = database.prepare(
      'SELECT columns, lists FROM sealed WHERE survey_id = ? AND format = ?',
    );
    this.#delete = database.prepare('DELETE FROM sealed WHERE survey_id = ?');
  }

  add(surveyId: number, { files, visits, placements, responses, uses }: SurveyTables): void {
    const columns = [
      ...placementColumns.map((name) => placements.columns[name]),
      ...responseColumns.map((name) => responses.columns[name]),
    ];
    const lists: SealedLists = {
      placements: placements.length,
      responses: responses.length,
      lists: placements.lists,
      answers: responses.answers,
      visits,
      files,
      uses,
    };
    const bytes = columns.map(({ buffer, byteOffset, byteLength }) =>
      Buffer.from(buffer, byteOffset, byteLength),
    );
    this.#insert.run(surveyId, Buffer.concat(bytes), JSON.stringify(lists), sealFormat);
  }

  /** The tables of a survey; `undefined` where they are not sealed, or in another format. */
  get(surveyId: number): SurveyTables | undefined {
    const row = this.#one.get(surveyId, sealFormat) as
      { columns: Buffer; lists: string } | undefined;
    if (!row) return undefined;
    const { placements, responses, ...lists } = JSON.parse(row.lists) as SealedLists;
    // The binding's bytes begin anywhere; numbers begin at a multiple of their size.
    const bytes = row.columns;
    const aligned =
      bytes.byteOffset % Int32Array.BYTES_PER_ELEMENT === 0 ? bytes : Buffer.from(bytes);
    const numbers = new Int32Array(
      aligned.buffer,
      aligned.byteOffset,
      aligned.byteLength / Int32Array.BYTES_PER_ELEMENT,
    );
    let from = 0;
    const next = (length: number) => numbers.subarray(from, (from += length));
    return tablesOf({
      placed: record(placementColumns, () => next(placements)),
      answered: record(responseColumns, () => next(responses)),
      ...lists,
    });
  }

  delete(surveyId: number): void {
    this.#delete.run(surveyId);
  }
}
