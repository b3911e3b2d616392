import { createHash } from 'node:crypto';
import pLimit from 'p-limit';

/** Bodies that are held in memory at the same time while they are checked. */
const readAtOnce = 4;

/** Bodies of images and texts, each once, by their content hash. */
export abstract class BodyStore {
  /** Whether a body is stored. */
  abstract has(contentHash: string): boolean;

  /** Stores a body, whole or not at all. */
  abstract keep(contentHash: string, body: Uint8Array): Promise<void>;

  /** Bytes of a body; 0 where it is not kept. */
  abstract sizeOf(contentHash: string): number;

  /** Deletes a body, if it is there. */
  abstract delete(contentHash: string): Promise<void>;

  /** Takes away what killed programs left half written. */
  abstract clearDrafts(): void;

  /** The bytes that are kept under a content hash; `undefined` where there are none. */
  protected abstract bytesOf(contentHash: string): Promise<Buffer | undefined>;

  /**
   * Takes away what is not what it was: bytes that a disk has lost or changed. Whatever can be made or fetched again is
   * then missing, and no longer wrong.
   *
   * @returns the content hashes of what was taken away
   */
  async weedOut(contentHashes: Iterable<string>): Promise<string[]> {
    const limit = pLimit(readAtOnce);
    const checked = [...new Set(contentHashes)].map((contentHash) =>
      limit(async () => {
        if (!this.has(contentHash)) return [];
        return this.read(contentHash).then(
          () => [],
          () => [contentHash],
        );
      }),
    );
    return (await Promise.all(checked)).flat();
  }

  /** @throws Error when the body is not kept, or is damaged: then it is taken away. */
  async read(contentHash: string): Promise<Buffer> {
    const body = await this.bytesOf(contentHash);
    if (!body) throw new Error('its bytes are not kept');
    if (createHash('sha256').update(body).digest('hex') === contentHash) return body;
    await this.delete(contentHash);
    throw new Error('its kept bytes were damaged, and have been taken away');
  }

  /** The body, or `null` where it is not kept, or is damaged: who can do without it goes on. */
  readIfSound(contentHash: string): Promise<Buffer | null> {
    return this.read(contentHash).catch(() => null);
  }
}
