import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

let drafts = 0;

/** Writes a file so that no reader sees half of it. */
export async function writeWhole(path: string, bytes: Uint8Array | string): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  await asWhole(path, async (draft) => {
    const file = await open(draft, 'wx');
    try {
      await file.writeFile(bytes);
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

function isRunning(pid: number): boolean {
  if (pid === process.pid) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
