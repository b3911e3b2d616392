import pLimit from 'p-limit';
import { pictureKey } from '../../core/address/unsized-address.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { largerNames } from '../../core/refit/plan/larger-names.js';
import type { SurveySource } from '../../core/refit/plan/survey-sources.js';
import { widthsPlanned } from '../../core/refit/refit-job.js';
import type { Master, RefitJob } from '../../core/refit/refit-job.js';
import { sameShape } from '../../core/survey/fingerprint.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import type { Pictures } from '../../core/survey/pictures.js';
import type { PictureUse } from '../../core/survey/picture-use.js';
import { picturesAtOnce } from '../../images/at-once.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';
import type { CandidateFile } from './fetch-candidates.js';
import { SiteFiles } from './site-files.js';
import type { AskSite } from './site-files.js';

/** What is known of the files of a site. */
export interface KnownFiles {
  readonly images: readonly RankedImage[];
  readonly pictures: Pictures;
  readonly candidates: readonly CandidateFile[];
  readonly uses: readonly PictureUse[];
}

/** A file with so many times the pixels across that are wanted of it gains nothing from a larger one. */
const ample = 2;
/** A file that is wider by less is none to begin again from. */
const wider = 1.1;
/** Files that are held against one image. */
const mostTried = 3;

type Job = RefitJob & { readonly source: SurveySource };

/** A larger file that may show the same picture. */
interface LargerFile {
  readonly url: string;
  readonly file: ImageFile;
}

/**
 * Finds the largest file of each picture that is to be refitted, where its own has few pixels to spare: among those that the
 * survey knows, and, if the policy has it so, where names point to on the site. Only what shows the same is taken.
 *
 * @param ask left out, only what is known counts
 * @returns by content hash of the file that is refitted
 */
export async function findMasters(
  workspace: Workspace,
  jobs: readonly Job[],
  known: KnownFiles,
  ask: AskSite | undefined,
  { largerFiles }: Pick<Policy, 'largerFiles'>,
  { signal, onProgress = noProgress, onTrace }: TaskOptions,
): Promise<ReadonlyMap<string, Master>> {
  const masters = new Map<string, Master>();
  const due = largerFiles === 'never' ? [] : jobs.filter(hasFewPixels);
  if (due.length === 0) return masters;
  const site = largerFiles === 'ask' && ask ? new SiteFiles(workspace, ask, onTrace) : undefined;
  const knownLarger = largerFinder(known);
  const seen = [
    ...known.images.flatMap(({ urls }) => urls),
    ...known.candidates.map(({ url }) => url),
  ];
  const namesOf = largerNames(known.uses, new Set(seen));
  // The decoders take a while to load.
  const { isSamePicture } = await import('../../images/same-picture.js');
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  await Promise.all(
    due.map((job) =>
      limit(async () => {
        if (signal?.aborted) return;
        const { image, originals } = job.source;
        onProgress({ stage: 'masters', done, total: due.length, doing: originals[0] ?? '' });
        const some = knownLarger(job.source);
        const { width = 0, height = 0 } = image.intrinsic ?? {};
        const isAmple = some.some(({ file }) => isWideEnough(job, file));
        for (const url of isAmple ? [] : namesOf(originals, [width, height])) {
          const file = await site?.get(url);
          if (file) some.push({ url, file });
        }
        const master = await firstAlike(job, some);
        if (master) masters.set(image.contentHash, master);
        onProgress({ stage: 'masters', done: ++done, total: due.length, doing: '' });
      }),
    ),
  );
  return masters;

  async function firstAlike(
    { source: { image } }: Job,
    some: readonly LargerFile[],
  ): Promise<Master | undefined> {
    const { bodies } = workspace;
    const larger = some
      .filter(({ file }) => isLarger(file, image) && bodies.has(file.contentHash))
      .toSorted((a, b) => b.file.intrinsic!.width - a.file.intrinsic!.width);
    for (const { url, file } of larger.slice(0, mostTried)) {
      const pair = [bodies.read(file.contentHash), bodies.read(image.contentHash)] as const;
      const isSame = await Promise.all(pair)
        .then(([whole, own]) => isSamePicture(whole, own, image.intrinsic!))
        .catch(() => false);
      if (isSame) return { contentHash: file.contentHash, url };
    }
    return undefined;
  }
}

/** Whether more pixels than its own file has would help. */
function hasFewPixels(job: Job): boolean {
  const { image } = job.source;
  return (
    job.nature !== 'vector' &&
    image.frames === 1 &&
    image.intrinsic !== null &&
    !isWideEnough(job, image)
  );
}

function isWideEnough(job: Job, { intrinsic }: ImageFile): boolean {
  return (intrinsic?.width ?? 0) >= ample * Math.max(...widthsPlanned(job));
}

function isLarger(file: ImageFile, own: ImageFile): boolean {
  return (
    file.problem === null &&
    file.frames === 1 &&
    sameShape(file, own) &&
    file.intrinsic!.width >= wider * own.intrinsic!.width
  );
}

/** Finds the files of the same picture among those that are known. */
function largerFinder({
  images,
  pictures,
  candidates,
}: KnownFiles): (source: SurveySource) => LargerFile[] {
  const byIndex = new Map(images.map((image) => [image.fileIndex, image]));
  const byName = new Map<string, LargerFile[]>();
  for (const { url, file } of candidates) {
    const key = keyOf(url, file);
    byName.set(key, [...(byName.get(key) ?? []), { url, file }]);
  }
  return ({ ranked, image, originals }) => {
    const group = ranked ? pictures.files[pictures.ofFile[ranked.fileIndex]!]! : [];
    return [
      ...group.flatMap((place) => {
        const one = byIndex.get(place);
        return one && !one.thirdParty ? [{ url: one.url, file: one.file }] : [];
      }),
      ...new Set(originals.flatMap((url) => byName.get(keyOf(url, image)) ?? [])),
    ];
  };
}

function keyOf(url: string, { intrinsic }: ImageFile): string {
  return pictureKey(url, intrinsic ? [intrinsic.width, intrinsic.height] : []);
}
