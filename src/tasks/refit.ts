import { existsSync } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { hostOf, relativePathOf, splitExtension } from '../core/address.js';
import { OutputError, messageOf } from '../core/errors.js';
import { isVector } from '../core/image-file.js';
import type { EncodedFormat, Policy } from '../core/policy.js';
import type { RankedImage } from '../core/ranked-image.js';
import type { Encoded } from '../core/survey.js';
import type { Size } from '../core/size.js';
import { contentHashOf } from '../images/hash.js';
import { writeWhole } from '../store/write-whole.js';
import type { Workspace } from '../store/workspace.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { rank } from './rank.js';

/** One file that a refit makes. */
export interface RefitFile {
  /** The addresses that it takes the place of. */
  readonly originals: readonly string[];
  readonly contentHash: string;
  /** Path below the refit's folder, with `/`. */
  readonly path: string;
  readonly resultHash: string;
  readonly mediaType: string;
  readonly from: Size & { readonly bytes: number; readonly mediaType: string };
  readonly to: Size & { readonly bytes: number; readonly format: EncodedFormat };
  readonly savedBytes: number;
}

/** An image file that stays as it is, and why. */
export interface KeptFile {
  readonly url: string;
  readonly reason: string;
}

/** What lies in a refit's folder; kept there as `manifest.json`. */
export interface RefitManifest {
  readonly format: 'zealous-lynx.refit/1';
  readonly survey: string;
  readonly createdAt: string;
  readonly files: readonly RefitFile[];
  readonly kept: readonly KeptFile[];
  /** Files of earlier refits into this folder that this one does not make. */
  readonly earlier: readonly { readonly path: string; readonly resultHash: string }[];
}

export interface RefitResult {
  readonly folder: string;
  readonly manifest: RefitManifest;
  /** Files that were there already, the same to the byte. */
  readonly unchanged: number;
  readonly interrupted: boolean;
}

const manifestName = 'manifest.json';

/**
 * Writes the right-sized files of a survey into a folder, in the folder structure of the originals.
 * Nothing is written over that no refit wrote, and a file appears whole or not at all.
 *
 * @throws OutputError when a file is in the way, or the folder cannot be written to; then nothing
 *   has been changed.
 */
export async function refit(
  workspace: Workspace,
  label: string | undefined,
  folder: string,
  policy: Policy,
  options: TaskOptions = {},
): Promise<RefitResult> {
  const { signal, onProgress = noProgress } = options;
  const ranking = await rank(workspace, label, policy, options);
  const results = new Map(ranking.encoded.map((result) => [result.contentHash, result]));
  const plan = planFiles(ranking.images, (hash) => results.get(hash));
  const before = await readManifest(folder);
  const owned = ownedBy(before);
  await refuseForeign(folder, plan.files, owned);
  const planned = new Set(plan.files.map(({ path }) => path));
  const manifest: RefitManifest = {
    format: 'zealous-lynx.refit/1',
    survey: ranking.survey.label,
    createdAt: new Date().toISOString(),
    ...plan,
    earlier: [...owned]
      .filter(([path]) => !planned.has(path) && existsSync(join(folder, path)))
      .map(([path, resultHash]) => ({ path, resultHash })),
  };
  try {
    await mkdir(folder, { recursive: true });
    // The manifest comes first: if the run breaks off, the next one knows its own files by it.
    await writeWhole(join(folder, manifestName), `${JSON.stringify(manifest, null, 2)}\n`);
    let unchanged = 0;
    let done = 0;
    for (const file of plan.files) {
      if (signal?.aborted) break;
      const target = join(folder, file.path);
      if ((await hashOfFile(target)) === file.resultHash) unchanged++;
      else await writeWhole(target, await workspace.bodies.read(file.resultHash));
      onProgress({ stage: 'files', done: ++done, total: plan.files.length, doing: file.path });
    }
    return { folder, manifest, unchanged, interrupted: signal?.aborted ?? false };
  } catch (error) {
    throw new OutputError(`${folder} cannot be written to: ${messageOf(error)}`, {
      hint: 'run it again when that is mended; the files that are missing are then written',
      cause: error,
    });
  }
}

/** Which files are to be written, under which names, and which images stay as they are. */
export function planFiles(
  images: readonly RankedImage[],
  resultOf: (contentHash: string) => Encoded | undefined,
): Pick<RefitManifest, 'files' | 'kept'> {
  const files: RefitFile[] = [];
  const kept: KeptFile[] = [];
  const taken = new Set([manifestName]);
  const own = images.filter(({ thirdParty }) => !thirdParty);
  const hosts = own.flatMap(({ urls }) => urls.filter(isFetched).map(hostOf));
  const severalHosts = new Set(hosts).size > 1;
  for (const image of images) {
    const { contentHash, mediaType, intrinsic, bytes } = image.file;
    const result = resultOf(contentHash);
    const reason = reasonToKeep(image, result);
    const format = result?.format;
    if (
      reason !== undefined ||
      !result?.resultHash ||
      !result.need ||
      !intrinsic ||
      !format ||
      format === 'svg'
    ) {
      kept.push({ url: image.url, reason: reason ?? 'it cannot be encoded' });
      continue;
    }
    const path = freeName(image, format, severalHosts, taken);
    taken.add(path.toLowerCase());
    files.push({
      originals: image.urls.filter(isFetched),
      contentHash,
      path,
      resultHash: result.resultHash,
      mediaType: `image/${format}`,
      from: { ...intrinsic, bytes, mediaType },
      to: { ...result.need, bytes: result.steps.best, format },
      savedBytes: bytes - result.steps.best,
    });
  }
  return { files, kept };
}

/** Whether an address is one of a file of its own, not of bytes in a document (`data:`, `blob:`). */
function isFetched(url: string): boolean {
  return /^https?:/.test(url);
}

function reasonToKeep(image: RankedImage, result: Encoded | undefined): string | undefined {
  if (!image.urls.some(isFetched)) return 'its bytes stand in the document that shows it';
  if (image.thirdParty) return 'it belongs to a third party';
  if (isVector(image.file)) return 'it is a vector: it fits every size';
  if (image.placed.length === 0) return 'no element shows it';
  if (image.waste === null) return image.problem ?? 'it cannot be read';
  if (!result) return 'no page shows it';
  const exempt = image.rules.find((rule) => rule.exempt);
  if (exempt) return `the policy lets it be: ${exempt.reason}`;
  if (result.steps.best >= image.file.bytes) return 'nothing smaller is good enough';
  return undefined;
}

function freeName(
  image: RankedImage,
  format: EncodedFormat,
  severalHosts: boolean,
  taken: ReadonlySet<string>,
): string {
  const url = image.urls.find(isFetched)!;
  const path = relativePathOf(url);
  const { stem } = splitExtension(path);
  const extension = format === 'jpeg' ? '.jpg' : `.${format}`;
  const folder = severalHosts ? `${hostOf(url).replace(/[^\w.-]/g, '_')}/` : '';
  const name = `${folder}${stem}${extension}`;
  if (!taken.has(name.toLowerCase())) return name;
  return `${folder}${stem}-${image.file.contentHash.slice(0, 8)}${extension}`;
}

/** The files that earlier refits wrote into a folder, with the hashes they had. */
function ownedBy(manifest: RefitManifest | undefined): Map<string, string> {
  const files = [...(manifest?.earlier ?? []), ...(manifest?.files ?? [])];
  return new Map(files.map(({ path, resultHash }) => [path, resultHash]));
}

async function refuseForeign(
  folder: string,
  files: readonly RefitFile[],
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

async function readManifest(folder: string): Promise<RefitManifest | undefined> {
  const path = join(folder, manifestName);
  if (!existsSync(path)) return undefined;
  try {
    const found = JSON.parse(await readFile(path, 'utf8')) as Partial<RefitManifest>;
    if (found.format === 'zealous-lynx.refit/1' && Array.isArray(found.files))
      return found as RefitManifest;
  } catch {
    // What cannot be read is somebody else's.
  }
  throw new OutputError(`${path} was not written by refit, and is left alone`, {
    hint: 'name an empty folder with --out, or move that file away',
  });
}

async function hashOfFile(path: string): Promise<string | undefined> {
  try {
    return contentHashOf(await readFile(path));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw new OutputError(`${path} is in the way: ${messageOf(error)}`, {
      hint: 'name another folder with --out',
    });
  }
}
