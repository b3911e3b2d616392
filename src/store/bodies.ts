import { createHash } from 'node:crypto';
import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit from 'p-limit';
import { isRunning } from '../system/running.js';
import { draftOwner, writeWhole } from './write-whole.js';

/** Bodies that are held in memory at the same time while they are checked. */
const readAtOnce = 4;

/** Bodies of images, each once, in files named by their content hash. */
export class BodyStore {
  readonly #folder: string;

  constructor(folder: string) {
    this.#folder = folder;
  }

  /** Whether a body is stored. */
  has(contentHash: string): boolean {
    return existsSync(this.#path(contentHash));
  }

  /** Stores a body; the file appears whole or not at all. */
  async keep(contentHash: string, body: Uint8Array): Promise<void> {
    if (this.has(contentHash)) return;
    await writeWhole(this.#path(contentHash), body, true);
  }

  /** Takes away what killed programs left half written. */
  clearDrafts(): void {
    for (const folder of namesIn(this.#folder))
      for (const name of namesIn(join(this.#folder, folder)))
        if (isAbandoned(name)) rmSync(join(this.#folder, folder, name), { force: true });
  }

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

  /** Bytes on disk of a body; 0 where it is not kept. */
  sizeOf(contentHash: string): number {
    return statSync(this.#path(contentHash), { throwIfNoEntry: false })?.size ?? 0;
  }

  /** Deletes a body, if it is there. */
  async delete(contentHash: string): Promise<void> {
    await rm(this.#path(contentHash), { force: true });
  }

  /** @throws Error when the body is not kept, or is damaged: then it is taken away. */
  async read(contentHash: string): Promise<Buffer> {
    const body = await readFile(this.#path(contentHash)).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOENT' ? new Error('its bytes are not kept') : error;
    });
    if (createHash('sha256').update(body).digest('hex') === contentHash) return body;
    await this.delete(contentHash);
    throw new Error('its kept bytes were damaged, and have been taken away');
  }

  /** The body, or `null` where it is not kept, or is damaged: who can do without it goes on. */
  readIfSound(contentHash: string): Promise<Buffer | null> {
    return this.read(contentHash).catch(() => null);
  }

  #path(contentHash: string): string {
    return join(this.#folder, contentHash.slice(0, 2), contentHash);
  }
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}

function isAbandoned(name: string): boolean {
  const pid = draftOwner(name);
  return pid !== undefined && !isRunning(pid) && pid !== process.pid;
}
