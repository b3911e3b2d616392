import { open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';
import { makeFolder } from './make-folder.js';
import { isRunning } from './running.js';

let drafts = 0;

/**
 * Writes a file so that no reader sees half of it.
 *
 * @param synced whether it must be on the disk before it has its name
 */
export async function writeWhole(
  path: string,
  bytes: Uint8Array | string,
  synced = false,
): Promise<void> {
  makeFolder(dirname(path));
  await asWhole(path, async (draft) => {
    const file = await open(draft, 'wx');
    try {
      await file.writeFile(bytes);
      // The name must not outlive the bytes when the power fails.
      if (synced) await file.datasync();
    } finally {
      await file.close();
    }
  });
}

/** Has a file written beside its place and moves it there when complete. */
export async function asWhole(
  path: string,
  write: (draft: string) => Promise<void>,
): Promise<void> {
  const draft = `${path}.${process.pid}-${drafts++}.part`;
  try {
    await write(draft);
    await rename(draft, path);
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
}

/** Whether a file is a partial copy of one of `whole`, left by a program that has ended. */
export function isAbandonedDraft(path: string, whole: ReadonlySet<string>): boolean {
  const [, base, pid] = /^(.*)\.(\d+)-\d+\.part$/.exec(path) ?? [];
  return base !== undefined && whole.has(base) && !isRunning(Number(pid));
}
