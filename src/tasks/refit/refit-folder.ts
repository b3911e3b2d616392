import { accessSync, constants, existsSync, rmdirSync } from 'node:fs';
import { readFile, readdir, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { OutputError, messageOf } from '../../core/base/errors.js';
import { filesOf } from '../../core/refit/refit-manifest.js';
import type { OwnFile, RefitManifest } from '../../core/refit/refit-manifest.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { contentHashOf } from '../../images/hash.js';
import { isAbandonedDraft } from '../../store/write-whole.js';
import { makeFolder } from '../../system/make-folder.js';

/**
 * Tries whether a folder can be made and written to; leaves nothing behind.
 *
 * @throws OutputError when it cannot.
 */
export function requireFolder(folder: string): void {
  try {
    const made = makeFolder(folder);
    try {
      accessSync(folder, constants.W_OK);
    } finally {
      for (const one of made.toReversed()) rmdirSync(one);
    }
  } catch (error) {
    throw new OutputError(`${folder} cannot be written to: ${messageOf(error)}`, {
      hint: 'name another folder with --out',
      cause: error,
    });
  }
}

/** The files that earlier refits wrote into a folder, with the hashes they had. */
export async function ownFiles(folder: string): Promise<Map<string, string>> {
  const own = filesOf(await manifestOf(folder));
  return new Map(own.map(({ path, resultHash }) => [path, resultHash]));
}

/**
 * @param owned what refits wrote there
 * @throws OutputError when a file is in the way that no refit wrote.
 */
export async function refuseForeign(
  folder: string,
  files: readonly OwnFile[],
  owned: ReadonlyMap<string, string>,
): Promise<void> {
  for (const { path, resultHash } of files) {
    const found = await hashOfFile(join(folder, path));
    if (found === undefined || found === resultHash || found === owned.get(path)) continue;
    throw new OutputError(
      `${join(folder, path)} was not written by refit and will not be overwritten`,
      {
        hint: 'name an empty folder with --out, or move that file away',
      },
    );
  }
}

/** Deletes what a killed run left half written. */
export async function removeDrafts(folder: string, files: readonly OwnFile[]): Promise<void> {
  const folders = new Set(files.map(({ path }) => dirname(join(folder, path))));
  const whole = new Set(files.map(({ path }) => join(folder, path)));
  for (const one of folders) {
    const names = await readdir(one).catch(() => []);
    for (const name of names)
      if (isAbandonedDraft(join(one, name), whole)) await rm(join(one, name), { force: true });
  }
}

/** The SHA-256 of a file; `undefined` where there is none. */
export async function hashOfFile(path: string): Promise<string | undefined> {
  try {
    return contentHashOf(await readFile(path));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw new OutputError(`${path} is in the way: ${messageOf(error)}`, {
      hint: 'name another folder with --out',
    });
  }
}

async function manifestOf(folder: string): Promise<Partial<RefitManifest>> {
  const path = join(folder, refitPapers.manifest);
  if (!existsSync(path)) return {};
  try {
    const found = JSON.parse(await readFile(path, 'utf8')) as Partial<RefitManifest>;
    if (found.format === 'zealous-lynx.refit/1' && Array.isArray(found.files)) return found;
  } catch {
    // What cannot be read is somebody else's.
  }
  throw new OutputError(`${path} was not written by refit and will not be overwritten`, {
    hint: 'name an empty folder with --out, or move that file away',
  });
}
