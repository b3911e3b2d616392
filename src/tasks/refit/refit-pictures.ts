import { readFile, readdir, stat } from 'node:fs/promises';
import { join, relative, resolve, sep } from 'node:path';
import pLimit from 'p-limit';
import { NotFoundError, UsageError } from '../../core/base/errors.js';
import { needOfPicture, sourcesOfPictures } from '../../core/refit/plan/picture-sources.js';
import { planRefit } from '../../core/refit/plan/refit-plan.js';
import type { FolderPicture, PictureLimits } from '../../core/refit/plan/picture-sources.js';
import type { Credit } from '../../core/refit/credit.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Naming } from '../../core/refit/plan/refit-names.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { newElementText } from '../../core/refit/markup/new-element.js';
import { picturesAtOnce } from '../../images/at-once.js';
import { encodeKey } from '../../images/encode-key.js';
import { readImageFacts } from '../../images/facts.js';
import { wholeJsonText } from '../../output/json/json-text.js';
import { rewritesDocument } from '../../output/json/rewrites.js';
import { picturesMarkdown } from '../../output/markdown/snippets.js';
import type { Workspace } from '../../store/workspace.js';
import { encodeAndKeep } from '../survey/encode-file.js';
import { makeFilesOf, makeFiles } from './make-files.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';
import { refuseStopped, usualReview } from './refit.js';
import type { RefitOptions } from './refit.js';
import { wishesFor } from './refit-wishes.js';
import { reviewRefit } from './review-refit.js';
import { writeRefit } from './write-refit.js';
import type { RefitResult } from './write-refit.js';

export interface RefitPicturesOptions extends Omit<RefitOptions, 'sheets' | 'fetch'> {
  readonly limits: PictureLimits;
}

/**
 * Makes the right-sized files of pictures that are not online yet, by policy alone: in the widths, or with the longest
 * side, that are asked for. They are read where they are, and never written to.
 *
 * @param from folder of pictures; folders in it are kept, names that begin with a dot are skipped
 * @throws NotFoundError when there is no such folder, or no picture in it; else as `refit`.
 */
export async function refitPictures(
  workspace: Workspace,
  from: string,
  folder: string,
  policy: Policy,
  options: RefitPicturesOptions,
): Promise<RefitResult> {
  const { limits, dryRun = false, review = usualReview } = options;
  const paths = await picturesIn(from, folder);
  if (paths.length === 0)
    throw new NotFoundError(`there are no pictures in ${from}`, {
      hint: `looked for: ${endings.join(', ')}`,
    });
  const found = await encodeAll(workspace, from, paths, policy, options);
  refuseStopped(options);
  const pictures = merged(found);
  const wishes = wishesFor(
    pictures.map(({ file, paths: names }) => ({ contentHash: file.contentHash, names, alt: null })),
    options,
    policy,
  );
  const { sources, originals } = sourcesOfPictures(pictures, limits);
  const plan = planRefit(sources, originals, wishes, policy.worthwhile);
  const places = new Map(pictures.map(({ file, paths: [path] }) => [file.contentHash, path!]));
  const read = (hash: string) => readFile(join(from, places.get(hash)!));
  const { jobs, notMade } = await makeFiles(workspace, plan.jobs, policy, read, options);
  refuseStopped(options);
  const shown = dryRun
    ? []
    : jobs.toSorted((a, b) => b.file.savedBytes - a.file.savedBytes).slice(0, review);
  const texts = jobs
    .filter(({ file }) => file.from.width !== null)
    .map((job) => {
      const { width, height } = job.file.from;
      const natural = { width: width!, height: height! };
      const form = policy.markup === 'img' ? 'img' : 'picture';
      return { path: job.file.originals[0]!, text: newElementText(job, natural, form) };
    });
  const work = {
    ...{ survey: null, jobs, kept: plan.kept, notMade, worklist: [], sheets: [] },
    ...{ encodedBy: encodeKey(policy), markup: null },
    collisions: plan.collisions,
    sheetFiles: new Map<string, string | Buffer>(),
    papers: new Map<string, string | Buffer>([
      [refitPapers.snippets, `${picturesMarkdown(texts)}\n`],
      [refitPapers.rewrites, `${wholeJsonText(rewritesDocument(jobs))}\n`],
      ...(await reviewRefit(workspace, shown, read, options)),
    ]),
  };
  refuseStopped(options);
  return writeRefit(workspace, folder, work, { ...options, dryRun });
}

const endings = ['jpg', 'jpeg', 'png', 'webp', 'gif', 'avif', 'svg', 'tif', 'tiff'];

/** Paths of pictures below a folder, with `/`, in a fixed order, without those of the refit itself. */
async function picturesIn(from: string, out: string): Promise<string[]> {
  const found = await stat(from).catch(() => undefined);
  if (!found?.isDirectory()) throw new NotFoundError(`there is no folder ${from}`);
  if (`${resolve(from)}${sep}`.startsWith(`${resolve(out)}${sep}`))
    throw new UsageError(`the originals are in ${out}: a refit is never written over them`, {
      hint: 'give --out another folder, beside or below that one',
    });
  const isPicture = new RegExp(`\\.(?:${endings.join('|')})$`, 'i');
  const own = resolve(out) + sep;
  const entries = await readdir(from, { recursive: true, withFileTypes: true });
  return entries
    .filter((entry) => entry.isFile() && isPicture.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => !resolve(path).startsWith(own))
    .map((path) => relative(from, path).split(sep).join('/'))
    .filter((path) => !path.split('/').some((part) => part.startsWith('.')))
    .sort();
}

const unnamed: { naming: Naming; credits: ReadonlyMap<string, Credit> } = {
  naming: { pattern: null, stems: new Map(), hashOf: () => '' },
  credits: new Map(),
};

/** Encodes every picture at its need, except what the workspace already has. */
async function encodeAll(
  workspace: Workspace,
  from: string,
  paths: readonly string[],
  policy: Policy,
  { signal, onProgress = noProgress, limits, credits }: RefitPicturesOptions & TaskOptions,
): Promise<FolderPicture[]> {
  const limit = pLimit(picturesAtOnce);
  const key = encodeKey(policy);
  let done = 0;
  const found = await Promise.all(
    paths.map((path) =>
      limit(async (): Promise<FolderPicture[]> => {
        if (signal?.aborted) return [];
        const body = await readFile(join(from, path));
        const file = await readImageFacts(body, 'application/octet-stream');
        const need = needOfPicture(file, limits);
        workspace.images.add(file);
        const kept = workspace.encodes.get(file.contentHash, need, key);
        const isKept = kept && (!kept.resultHash || workspace.bodies.has(kept.resultHash));
        const encoded = isKept
          ? kept
          : file.problem === null
            ? await encodeAndKeep(workspace, file, need, policy, {
                read: () => Promise.resolve(body),
              })
            : null;
        const picture = { file, encoded, paths: [path] };
        // While it is decoded, all else is made of it as well; its names can wait.
        const alone = sourcesOfPictures([picture], limits);
        const [job] = planRefit(alone.sources, alone.originals, unnamed, policy.worthwhile).jobs;
        if (job && credits === undefined)
          await makeFilesOf(workspace, job, policy, () => Promise.resolve(body));
        onProgress({ stage: 'images', done: ++done, total: paths.length, doing: path });
        return [picture];
      }),
    ),
  );
  return found.flat();
}

/** The same content under several names is one picture. */
function merged(found: readonly FolderPicture[]): FolderPicture[] {
  const pictures = new Map<string, FolderPicture>();
  for (const one of found) {
    const known = pictures.get(one.file.contentHash);
    pictures.set(
      one.file.contentHash,
      known ? { ...known, paths: [...known.paths, ...one.paths] } : one,
    );
  }
  return [...pictures.values()];
}
