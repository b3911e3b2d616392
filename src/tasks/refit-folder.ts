import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { OutputError, messageOf } from '../core/errors.js';
import { papers } from '../core/refit-plan.js';
import { contentHashOf } from '../images/hash.js';
import type { RefitManifest } from './refit.js';

/** A file of a refit's folder. */
export interface OwnFile {
  readonly path: string;
  readonly resultHash: string;
}

/** The files that earlier refits wrote into a folder, with the hashes they had. */
export async function ownFiles(folder: string): Promise<Map<string, string>> {
  const { earlier = [], files = [], variants = [], papers: beside = [] } = await manifestOf(folder);
  return new Map(
    [...earlier, ...files, ...variants, ...beside].map(({ path, resultHash }) => [
      path,
      resultHash,
    ]),
  );
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
    throw new OutputError(`${join(folder, path)} was not written by refit, and is left alone`, {
      hint: 'name an empty folder with --out, or move that file away',
    });
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
  const path = join(folder, papers.manifest);
  if (!existsSync(path)) return {};
  try {
    const found = JSON.parse(await readFile(path, 'utf8')) as Partial<RefitManifest>;
    if (found.format === 'zealous-lynx.refit/1' && Array.isArray(found.files)) return found;
  } catch {
    // What cannot be read is somebody else's.
  }
  throw new OutputError(`${path} was not written by refit, and is left alone`, {
    hint: 'name an empty folder with --out, or move that file away',
  });
}
