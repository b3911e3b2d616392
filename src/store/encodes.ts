import type Database from 'libsql';
import type { EncodedFormat } from '../core/policy.js';
import type { Size } from '../core/size.js';
import type { Encoded } from '../core/survey.js';

interface EncodedRow {
  readonly content_hash: string;
  readonly need_width: number;
  readonly need_height: number;
  readonly format: EncodedFormat;
  readonly pixel_ratio: number;
  readonly same_format: number;
  readonly best: number;
  readonly result_hash: string | null;
  readonly problem: string | null;
}

/** Results of encodes, by content, need and policy: what was encoded once is never encoded again. */
export class EncodeStore {
  readonly #insert: Database.Statement;
  readonly #one: Database.Statement;

  constructor(database: Database.Database) {
    this.#insert = database.prepare(
      `INSERT OR REPLACE INTO encoded
         (content_hash, need_width, need_height, policy, format, pixel_ratio,
          same_format, best, result_hash, problem)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    );
    this.#one = database.prepare(
      `SELECT * FROM encoded
       WHERE content_hash = ? AND need_width = ? AND need_height = ? AND policy = ?`,
    );
  }

  /** @param policy key of the settings that the result depends on */
  add(encoded: Encoded, policy: string): void {
    this.#insert.run(
      encoded.contentHash,
      encoded.need.width,
      encoded.need.height,
      policy,
      encoded.format,
      encoded.steps.pixelRatio,
      encoded.steps.sameFormat,
      encoded.steps.best,
      encoded.resultHash,
      encoded.problem,
    );
  }

  get(contentHash: string, need: Size, policy: string): Encoded | undefined {
    const row = this.#one.get(contentHash, need.width, need.height, policy) as
      EncodedRow | undefined;
    return (
      row && {
        contentHash: row.content_hash,
        need: { width: row.need_width, height: row.need_height },
        format: row.format,
        steps: {
          pixelRatio: row.pixel_ratio,
          sameFormat: row.same_format,
          best: row.best,
        },
        resultHash: row.result_hash,
        problem: row.problem,
      }
    );
  }
}
