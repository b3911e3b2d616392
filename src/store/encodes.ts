import type { Database, Statement } from './database.js';
import { groupBy } from '../core/base/group-by.js';
import type { Size } from '../core/base/size.js';
import type { Encoded } from '../core/survey/encoded.js';

/** The key of a policy ends the name under which anything is kept that was made by it. */
const isOfPolicy = 'substr(policy, length(policy) - length(CAST(? AS text)) + 1) = ?';

/** Results of encodes, by content, need and policy: nothing is encoded twice. */
export class EncodeStore {
  readonly #insert: Statement;
  readonly #one: Statement;
  readonly #ofSize: Statement;
  readonly #madeAs: Statement;
  readonly #results: Statement;
  readonly #ofSurvey: (policy: string, surveyId: number) => EncodedColumns[];
  readonly #ofFiles: (policy: string, hashes: string) => EncodedColumns[];

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO encoded (content_hash, need_width, need_height, policy, result_hash, result)
       VALUES (?, ?, ?, ?, ?, ?)
       ON CONFLICT (content_hash, need_width, need_height, policy)
         DO UPDATE SET result_hash = excluded.result_hash, result = excluded.result`,
    );
    this.#one = database.prepare(
      `SELECT result FROM encoded
       WHERE content_hash = ? AND need_width = ? AND need_height = ? AND policy = ?`,
    );
    this.#ofSize = database.prepare(
      `SELECT content_hash, need_width, need_height, result FROM encoded
       WHERE content_hash = ? AND need_width = ? AND need_height = ?
         AND ${isOfPolicy} AND result_hash IS NOT NULL`,
    );
    this.#madeAs = database.prepare(
      `SELECT content_hash, need_width, need_height, result FROM encoded
       WHERE result_hash = ? AND content_hash <> result_hash AND ${isOfPolicy}`,
    );
    this.#results = database.prepare(
      `SELECT DISTINCT result_hash AS hash FROM encoded JOIN survey_file USING (content_hash)
       WHERE survey_id = ? AND result_hash IS NOT NULL`,
    );
    this.#ofSurvey = database.rows(
      ['content_hash', 'need_width', 'need_height', 'result'],
      `SELECT content_hash, need_width, need_height, result
       FROM encoded JOIN survey_file USING (content_hash) WHERE policy = ? AND survey_id = ?`,
    );
    const { each, text } = database.dialect;
    this.#ofFiles = database.rows(
      ['content_hash', 'need_width', 'need_height', 'result'],
      `SELECT content_hash, need_width, need_height, result FROM encoded
       WHERE policy = ? AND content_hash IN (SELECT ${text} FROM ${each('?')})`,
    );
  }

  /** @param policy key of the settings that the result depends on */
  add({ contentHash, need, ...result }: Encoded, policy: string): void {
    const { width, height } = need ?? noSize;
    const { resultHash } = result;
    this.#insert.run(contentHash, width, height, policy, resultHash, JSON.stringify(result));
  }

  /** All results of one policy for the files of a survey, looked up by content and need. */
  ofSurvey(surveyId: number, policy: string): FindEncode {
    return finderIn(this.#ofSurvey(policy, surveyId));
  }

  /** The same for some files. */
  ofFiles(contentHashes: readonly string[], policy: string): FindEncode {
    return finderIn(this.#ofFiles(policy, JSON.stringify(contentHashes)));
  }

  /** The encodes whose result is a file, under a policy: as what it was made, and from what. */
  madeAs(resultHash: string, policy: string): Encoded[] {
    return (this.#madeAs.all(resultHash, policy, policy) as EncodedRow[]).map(toResult);
  }

  /** All encodes of a content in one size under a policy, in whatever format. */
  ofSize(contentHash: string, { width, height }: Size, policy: string): Encoded[] {
    const rows = this.#ofSize.all(contentHash, width, height, policy, policy) as EncodedRow[];
    return rows.map(toResult);
  }

  /** Content hashes of all files that were made of the files of a survey. */
  resultsOf(surveyId: number): string[] {
    return (this.#results.all(surveyId) as { hash: string }[]).map(({ hash }) => hash);
  }

  get(contentHash: string, need: Size | null, policy: string): Encoded | undefined {
    const { width, height } = need ?? noSize;
    const row = this.#one.get(contentHash, width, height, policy) as { result: string } | undefined;
    return row && toEncoded(contentHash, need, row.result);
  }
}

type EncodedColumns = [contentHash: string, width: number, height: number, result: string];

/** Finds the result for a content at a need. */
export type FindEncode = (contentHash: string, need: Size | null) => Encoded | undefined;

function finderIn(rows: readonly EncodedColumns[]): FindEncode {
  const results = groupBy(rows, ([hash]) => hash);
  return (contentHash, need) => {
    const { width, height } = need ?? noSize;
    const result = results
      .get(contentHash)
      ?.find(([, wide, high]) => wide === width && high === height);
    return result && toEncoded(contentHash, need, result[3]);
  };
}

interface EncodedRow {
  readonly content_hash: string;
  readonly need_width: number;
  readonly need_height: number;
  readonly result: string;
}

function toResult({ content_hash, need_width, need_height, result }: EncodedRow): Encoded {
  return toEncoded(content_hash, { width: need_width, height: need_height }, result);
}

function toEncoded(contentHash: string, need: Size | null, text: string): Encoded {
  const result = JSON.parse(text) as Omit<Encoded, 'contentHash' | 'need'>;
  return { contentHash, need, ...result };
}

/** The need of a vector, which has no pixels. */
const noSize: Size = { width: 0, height: 0 };
