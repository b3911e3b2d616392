import type { Database, Statement } from './database.js';
import type { ImageFile } from '../core/survey/image-file.js';

export const imageColumns = [
  'content_hash',
  'media_type',
  'width',
  'height',
  'bytes',
  'frames',
  'problem',
] as const;

export type ImageRow = readonly [
  contentHash: string,
  mediaType: string,
  width: number | null,
  height: number | null,
  bytes: number,
  frames: number,
  problem: string | null,
];

/** Facts of image files, each content once, shared by all surveys. */
export class ImageStore {
  readonly #insert: Statement;
  readonly #one: Statement;

  constructor(database: Database) {
    this.#insert = database.prepare(
      `INSERT INTO image_file
         (content_hash, media_type, width, height, bytes, frames, problem)
       VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING`,
    );
    this.#one = database
      .prepare(`SELECT ${imageColumns.join(', ')} FROM image_file WHERE content_hash = ?`)
      .raw();
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

export function toImageFile([
  contentHash,
  mediaType,
  width,
  height,
  bytes,
  frames,
  problem,
]: ImageRow): ImageFile {
  const intrinsic = width === null || height === null ? null : { width, height };
  return { contentHash, mediaType, intrinsic, bytes, frames, problem };
}
