import { existsSync } from 'node:fs';
import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/** Bodies of images, each once, in files named by their content hash. */
export class BodyStore {
  readonly #folder: string;

  constructor(folder: string) {
    this.#folder = folder;
  }

  /** Whether a body is kept. */
  has(contentHash: string): boolean {
    return existsSync(this.#path(contentHash));
  }

  /** Keeps a body; the file appears whole or not at all. */
  async keep(contentHash: string, body: Uint8Array): Promise<void> {
    if (this.has(contentHash)) return;
    await writeWhole(this.#path(contentHash), body);
  }

  /** @throws Error when the body is not kept. */
  read(contentHash: string): Promise<Buffer> {
    return readFile(this.#path(contentHash));
  }

  #path(contentHash: string): string {
    return join(this.#folder, contentHash.slice(0, 2), contentHash);
  }
}

let drafts = 0;

/** Writes a file so that nobody ever sees half of it. */
export async function writeWhole(path: string, bytes: Uint8Array | string): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  const draft = `${path}.${process.pid}-${drafts++}.part`;
  try {
    const file = await open(draft, 'wx');
    try {
      await file.writeFile(bytes);
    } finally {
      await file.close();
    }
    await rename(draft, path);
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
}
