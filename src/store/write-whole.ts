import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

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
