import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { isRunning } from '../../system/running.js';
import { BodyStore } from '../bodies.js';
import { draftOwner, writeWhole } from '../write-whole.js';

/** Bodies in files of a folder, named by their content hash. */
export class FolderBodies extends BodyStore {
  readonly #folder: string;

  constructor(folder: string) {
    super();
    this.#folder = folder;
  }

  has(contentHash: string): boolean {
    return existsSync(this.#path(contentHash));
  }

  async keep(contentHash: string, body: Uint8Array): Promise<void> {
    if (this.has(contentHash)) return;
    await writeWhole(this.#path(contentHash), body, true);
  }

  clearDrafts(): void {
    for (const folder of namesIn(this.#folder))
      for (const name of namesIn(join(this.#folder, folder)))
        if (isAbandoned(name)) rmSync(join(this.#folder, folder, name), { force: true });
  }

  sizeOf(contentHash: string): number {
    return statSync(this.#path(contentHash), { throwIfNoEntry: false })?.size ?? 0;
  }

  async delete(contentHash: string): Promise<void> {
    await rm(this.#path(contentHash), { force: true });
  }

  protected async bytesOf(contentHash: string): Promise<Buffer | undefined> {
    try {
      return await readFile(this.#path(contentHash));
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
      throw error;
    }
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
