import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { OutputError, messageOf } from '../../core/base/errors.js';
import type {
  NotMade,
  OwnFile,
  RefitManifest,
  RefitVariant,
} from '../../core/refit/refit-manifest.js';
import type { Collision } from '../../core/refit/plan/refit-names.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import type { KeptFile, MadeJob, MadeVariant } from '../../core/refit/refit-job.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import { contentHashOf } from '../../images/hash.js';
import { makeFolder } from '../../system/make-folder.js';
import { writeWhole } from '../../store/write-whole.js';
import type { Workspace } from '../../store/workspace.js';
import type { MadeSheet } from './make-sheets.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';
import { ownFiles, refuseForeign, removeDrafts, hashOfFile } from './refit-folder.js';

/** The files of a refit, ready to be written. */
export interface RefitWork {
  readonly survey: string | null;
  /** Key of the settings that its encodes depend on. */
  readonly encodedBy: string;
  readonly jobs: readonly MadeJob[];
  readonly kept: readonly KeptFile[];
  readonly notMade: readonly NotMade[];
  readonly collisions: readonly Collision[];
  /** The largest saving first; empty for pictures of a folder, which nobody visits yet. */
  readonly worklist: readonly WorkItem[];
  /** The papers of a refit, by path. */
  readonly papers: ReadonlyMap<string, string | Buffer>;
  readonly sheets: readonly MadeSheet[];
  readonly sheetFiles: ReadonlyMap<string, string | Buffer>;
  /** Snippets handed out, how many of them were tried, and elements without one; `null` where there is no markup. */
  readonly markup: MarkupCount | null;
}

export interface MarkupCount {
  readonly snippets: number;
  readonly proved: number;
  readonly withheld: number;
  /** Why some were not tried, the first reason; `null` if all were. */
  readonly untried: string | null;
}

export interface RefitResult {
  readonly folder: string;
  readonly manifest: RefitManifest;
  /** The largest saving first. */
  readonly worklist: readonly WorkItem[];
  readonly sheets: readonly MadeSheet[];
  readonly markup: MarkupCount | null;
  /** Files that were already there, the same to the byte. */
  readonly unchanged: number;
  /** Nothing was written: this was a dry run. */
  readonly dryRun: boolean;
  readonly interrupted: boolean;
}

/**
 * Writes a refit into its folder. Nothing is written over that no refit wrote, and a file appears whole or not at all.
 *
 * @throws OutputError when a file is in the way, then nothing has been changed; or when the folder cannot be written to.
 */
export async function writeRefit(
  workspace: Workspace,
  folder: string,
  work: RefitWork,
  { signal, onProgress = noProgress, dryRun }: TaskOptions & { readonly dryRun: boolean },
): Promise<RefitResult> {
  const files = work.jobs.map(({ file }) => file);
  const variants = work.jobs.flatMap((job) => job.variants);
  const texts = new Map([...work.papers, ...work.sheetFiles]);
  const owned = await ownFiles(folder);
  const planned = [...files, ...variants, ...hashed(work.papers), ...hashed(work.sheetFiles)];
  await refuseForeign(folder, planned, owned);
  const names = new Set(planned.map(({ path }) => path));
  const manifest: RefitManifest = {
    format: 'zealous-lynx.refit/1',
    survey: work.survey,
    createdAt: new Date().toISOString(),
    encodedBy: work.encodedBy,
    files,
    variants: variants.map(toVariant),
    kept: work.kept,
    notMade: work.notMade,
    collisions: work.collisions,
    sheets: hashed(work.sheetFiles),
    papers: hashed(work.papers),
    earlier: [...owned]
      .filter(([path]) => !names.has(path) && existsSync(join(folder, path)))
      .map(([path, resultHash]) => ({ path, resultHash })),
  };
  const { worklist, sheets, markup } = work;
  const told = { folder, manifest, worklist, sheets, markup, dryRun };
  if (dryRun) return { ...told, unchanged: 0, interrupted: false };
  try {
    makeFolder(folder);
    await removeDrafts(folder, [...planned, { path: refitPapers.manifest, resultHash: '' }]);
    // The manifest comes first: if the run breaks off, the next one knows its own files by it.
    await writeWhole(join(folder, refitPapers.manifest), `${JSON.stringify(manifest, null, 2)}\n`);
    for (const [path, text] of texts) await writeWhole(join(folder, path), text);
    let unchanged = 0;
    let done = 0;
    const bodies: readonly OwnFile[] = [...files, ...variants];
    for (const { path, resultHash } of bodies) {
      if (signal?.aborted) break;
      const target = join(folder, path);
      if ((await hashOfFile(target)) === resultHash) unchanged++;
      else await writeWhole(target, await workspace.bodies.read(resultHash));
      onProgress({ stage: 'files', done: ++done, total: bodies.length, doing: path });
    }
    return { ...told, unchanged, interrupted: signal?.aborted ?? false };
  } catch (error) {
    throw new OutputError(`${folder} cannot be written to: ${messageOf(error)}`, {
      hint: 'correct that and run it again: only the missing files are written',
      cause: error,
    });
  }
}

function hashed(texts: ReadonlyMap<string, string | Buffer>): OwnFile[] {
  return [...texts].map(([path, text]) => ({
    path,
    resultHash: contentHashOf(typeof text === 'string' ? Buffer.from(text) : text),
  }));
}

function toVariant(variant: MadeVariant): RefitVariant {
  const { contentHash, path, resultHash, use, format, size, bytes } = variant;
  return { contentHash, path, resultHash, use, mediaType: `image/${format}`, ...size, bytes };
}
