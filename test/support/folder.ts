import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { onTestFinished } from 'vitest';

/**
 * A temporary folder that is gone when the test is.
 *
 * @param atEnd what says when that is: `afterAll` where several tests share it
 */
export function temporaryFolder(atEnd: (tidy: () => void) => void = onTestFinished): string {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-test-'));
  atEnd(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

/** Writes files below a folder, by path. */
export function writeFiles(folder: string, files: Readonly<Record<string, string | Buffer>>): void {
  for (const [path, body] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), body);
  }
}
