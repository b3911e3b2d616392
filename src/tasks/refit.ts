import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { OutputError, messageOf } from '../core/errors.js';
import { familyWidths } from '../core/family-widths.js';
import type { Policy } from '../core/policy.js';
import { papers, planRefit } from '../core/refit-plan.js';
import type {
  KeptFile,
  MadeVariant,
  RefitFile,
  RefitOrder,
  VariantOrder,
} from '../core/refit-plan.js';
import { worklistOf } from '../core/worklist.js';
import type { WorkItem } from '../core/worklist.js';
import { contentHashOf } from '../images/hash.js';
import { rewritesDocument } from '../output/json/rewrites.js';
import { snippetsMarkdown } from '../output/snippets.js';
import { worklistCsv, worklistMarkdown } from '../output/worklist-table.js';
import { writeWhole } from '../store/write-whole.js';
import type { Workspace } from '../store/workspace.js';
import { makeVariants } from './make-variants.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { rank } from './rank.js';
import { hashOfFile, ownFiles, refuseForeign } from './refit-folder.js';
import type { OwnFile } from './refit-folder.js';

/** Another form of a file of a refit, as its manifest tells it. */
export interface RefitVariant extends OwnFile {
  /** Of the original. */
  readonly contentHash: string;
  readonly use: VariantOrder['use'];
  readonly mediaType: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

/** What lies in a refit's folder; kept there as `manifest.json`. */
export interface RefitManifest {
  readonly format: 'zealous-lynx.refit/1';
  readonly survey: string;
  readonly createdAt: string;
  /** Each image at its need. */
  readonly files: readonly RefitFile[];
  /** The same images in narrower widths, and in formats that every browser reads. */
  readonly variants: readonly RefitVariant[];
  readonly kept: readonly KeptFile[];
  /** The work list and what goes with it. */
  readonly papers: readonly OwnFile[];
  /** Files of earlier refits into this folder that this one does not make. */
  readonly earlier: readonly OwnFile[];
}

export interface RefitResult {
  readonly folder: string;
  readonly manifest: RefitManifest;
  /** The largest saving first. */
  readonly worklist: readonly WorkItem[];
  /** Files that were there already, the same to the byte. */
  readonly unchanged: number;
  /** Nothing was written: it was only asked what would be. */
  readonly dryRun: boolean;
  readonly interrupted: boolean;
}

export interface RefitOptions extends TaskOptions {
  /** Makes everything, and writes nothing of it. */
  readonly dryRun?: boolean;
}

/**
 * Writes the right-sized files of a survey into a folder, in the folder structure of the originals, with a work list,
 * snippets and a map of addresses beside them. Nothing is written over that no refit wrote, and a file appears whole
 * or not at all.
 *
 * @throws OutputError when a file is in the way, or the folder cannot be written to; then nothing
 *   has been changed.
 */
export async function refit(
  workspace: Workspace,
  label: string | undefined,
  folder: string,
  policy: Policy,
  options: RefitOptions = {},
): Promise<RefitResult> {
  const { signal, onProgress = noProgress, dryRun = false } = options;
  const ranking = await rank(workspace, label, policy, options);
  const { orders, kept } = planRefit(ranking.images, familyWidths(ranking, policy.widths));
  const made = await makeVariants(workspace, orders, policy, options);
  const files = orders.map(({ file }) => file);
  const worklist = worklistOf(ranking.images, orders);
  const texts = papersOf(orders, made, worklist);
  const beside = [...texts].map(([path, text]) => ({
    path,
    resultHash: contentHashOf(Buffer.from(text)),
  }));
  const planned = [...files, ...made, ...beside];
  const owned = await ownFiles(folder);
  await refuseForeign(folder, planned, owned);
  const names = new Set(planned.map(({ path }) => path));
  const manifest: RefitManifest = {
    format: 'zealous-lynx.refit/1',
    survey: ranking.survey.label,
    createdAt: new Date().toISOString(),
    files,
    variants: made.map(toVariant),
    kept,
    papers: beside,
    earlier: [...owned]
      .filter(([path]) => !names.has(path) && existsSync(join(folder, path)))
      .map(([path, resultHash]) => ({ path, resultHash })),
  };
  const told = { folder, manifest, worklist, dryRun };
  if (dryRun) return { ...told, unchanged: 0, interrupted: signal?.aborted ?? false };
  try {
    await mkdir(folder, { recursive: true });
    // The manifest comes first: if the run breaks off, the next one knows its own files by it.
    await writeWhole(join(folder, papers.manifest), `${JSON.stringify(manifest, null, 2)}\n`);
    for (const [path, text] of texts) await writeWhole(join(folder, path), text);
    let unchanged = 0;
    let done = 0;
    const bodies: readonly OwnFile[] = [...files, ...made];
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
      hint: 'run it again when that is mended; the files that are missing are then written',
      cause: error,
    });
  }
}

/** What is handed over besides the files: their names and texts. */
function papersOf(
  orders: readonly RefitOrder[],
  made: readonly MadeVariant[],
  worklist: readonly WorkItem[],
): Map<string, string> {
  return new Map([
    [papers.worklistCsv, `${worklistCsv(worklist)}\r\n`],
    [papers.worklistMarkdown, `${worklistMarkdown(worklist)}\n`],
    [papers.snippets, `${snippetsMarkdown(orders, made)}\n`],
    [papers.rewrites, `${JSON.stringify(rewritesDocument(orders, made), null, 2)}\n`],
  ]);
}

function toVariant({
  contentHash,
  path,
  resultHash,
  size,
  format,
  use,
  bytes,
}: MadeVariant): RefitVariant {
  return { contentHash, path, resultHash, use, mediaType: `image/${format}`, ...size, bytes };
}
