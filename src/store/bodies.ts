import { existsSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { writeWhole } from './write-whole.js';

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
    await writeWhole(this.#path(contentHash), body);
  }

  /** Deletes a body, if it is there. */
  async delete(contentHash: string): Promise<void> {
    await rm(this.#path(contentHash), { force: true });
  }

  /** @throws Error when the body is not kept. */
  read(contentHash: string): Promise<Buffer> {
    return readFile(this.#path(contentHash));
  }

  #path(contentHash: string): string {
    return join(this.#folder, contentHash.slice(0, 2), contentHash);
  }
}
