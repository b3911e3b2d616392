import { closeSync, fdatasync, openSync, renameSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { dirname } from 'node:path';
import { promisify } from 'node:util';
import { makeFolder } from '../system/make-folder.js';
import { isRunning } from '../system/running.js';

const datasync = promisify(fdatasync);

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
    // A survey keeps thousands of small files: to hand each step of one to another thread takes longer than the step.
    const file = openSync(draft, 'wx');
    try {
      writeFileSync(file, bytes);
      // The name must not outlive the bytes when the power fails.
      if (synced) await datasync(file);
    } finally {
      closeSync(file);
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
    renameSync(draft, path);
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
}

/** Whether a file is a partial copy of one of `whole`, left by a program that has ended. */
export function isAbandonedDraft(path: string, whole: ReadonlySet<string>): boolean {
  const pid = draftOwner(path);
  return pid !== undefined && whole.has(path.replace(draftEnding, '')) && !isRunning(pid);
}

const draftEnding = /\.(\d+)-\d+\.part$/;

/** The process that a draft is or was written by; `undefined` for what is no draft. */
export function draftOwner(path: string): number | undefined {
  const pid = draftEnding.exec(path)?.[1];
  return pid === undefined ? undefined : Number(pid);
}
