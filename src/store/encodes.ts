import type Database from 'libsql';
import type { Size } from '../core/size.js';
import type { Encoded } from '../core/survey.js';

/** Results of encodes, by content, need and policy: what was encoded once is never encoded again. */
export class EncodeStore {
  readonly #insert: Database.Statement;
  readonly #one: Database.Statement;

  constructor(database: Database.Database) {
    this.#insert = database.prepare(
      `INSERT OR REPLACE INTO encoded (content_hash, need_width, need_height, policy, result_hash, result)
       VALUES (?, ?, ?, ?, ?, ?)`,
    );
    this.#one = database.prepare(
      `SELECT result FROM encoded
       WHERE content_hash = ? AND need_width = ? AND need_height = ? AND policy = ?`,
    );
  }

  /** @param policy key of the settings that the result depends on */
  add({ contentHash, need, ...result }: Encoded, policy: string): void {
    const { width, height } = need ?? noSize;
    const { resultHash } = result;
    this.#insert.run(contentHash, width, height, policy, resultHash, JSON.stringify(result));
  }

  get(contentHash: string, need: Size | null, policy: string): Encoded | undefined {
    const { width, height } = need ?? noSize;
    const row = this.#one.get(contentHash, width, height, policy) as { result: string } | undefined;
    if (!row) return undefined;
    const result = JSON.parse(row.result) as Omit<Encoded, 'contentHash' | 'need'>;
    return { contentHash, need, ...result };
  }
}

/** What stands for the need of a vector, which has no pixels. */
const noSize: Size = { width: 0, height: 0 };
