import type Database from 'libsql';
import type { ImageFile } from '../core/image-file.js';

interface ImageRow {
  readonly content_hash: string;
  readonly media_type: string;
  readonly width: number | null;
  readonly height: number | null;
  readonly bytes: number;
  readonly frames: number;
  readonly problem: string | null;
}

/** Facts of image files, each content once, whatever survey it came from. */
export class ImageStore {
  readonly #insert: Database.Statement;
  readonly #one: Database.Statement;

  constructor(database: Database.Database) {
    this.#insert = database.prepare(
      `INSERT OR IGNORE INTO image_file
         (content_hash, media_type, width, height, bytes, frames, problem)
       VALUES (?, ?, ?, ?, ?, ?, ?)`,
    );
    this.#one = database.prepare('SELECT * FROM image_file WHERE content_hash = ?');
  }

  add(file: ImageFile): void {
    this.#insert.run(
      file.contentHash,
      file.mediaType,
      file.intrinsic?.width ?? null,
      file.intrinsic?.height ?? null,
      file.bytes,
      file.frames,
      file.problem,
    );
  }

  has(contentHash: string): boolean {
    return this.#one.get(contentHash) !== undefined;
  }

  get(contentHash: string): ImageFile | undefined {
    const row = this.#one.get(contentHash) as ImageRow | undefined;
    return row && toImageFile(row);
  }
}

export function toImageFile(row: ImageRow): ImageFile {
  return {
    contentHash: row.content_hash,
    mediaType: row.media_type,
    intrinsic:
      row.width === null || row.height === null ? null : { width: row.width, height: row.height },
    bytes: row.bytes,
    frames: row.frames,
    problem: row.problem,
  };
}
