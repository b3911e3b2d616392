import pLimit from 'p-limit';
import { ownFolders, refitPapers } from '../../core/refit/refit-job.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import { formatSize } from '../../core/base/size.js';
import { picturesAtOnce } from '../../images/at-once.js';
import type { ReviewCrops } from '../../images/review-crops.js';
import { reviewHtml } from '../../output/html/review.js';
import type { ReviewedPicture } from '../../output/html/review.js';
import { shorten } from '../../output/words/plain-text.js';
import { formatBytes, formatShare } from '../../output/words/units.js';
import type { Workspace } from '../../store/workspace.js';
import type { ReadBody } from './make-files.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

/** The most that are in the picture; the page has all of them. */
const pictured = 4;

/** The report on one picture. */
interface Reviewed {
  readonly job: MadeJob;
  readonly crops: ReviewCrops;
}

/**
 * Shows refitted pictures beside their originals, at 100 % and enlarged where they differ most: as a page with a slider,
 * and as a picture. Vectors are left out: they have been compared already.
 *
 * @returns the files of the review, by their paths in the refit's folder; none where there is nothing to show
 */
export async function reviewRefit(
  workspace: Workspace,
  jobs: readonly MadeJob[],
  read: ReadBody,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<Map<string, string | Buffer>> {
  const files = new Map<string, string | Buffer>();
  const shown = jobs.filter(({ file }) => file.to.width !== null);
  if (shown.length === 0) return files;
  const { reviewCrops } = await import('../../images/review-crops.js');
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  const reviewed = await Promise.all(
    shown.map((job) =>
      limit(async (): Promise<Reviewed[]> => {
        if (signal?.aborted) return [];
        const { width, height } = job.file.to;
        const crops = await reviewCrops(
          await read(job.file.contentHash),
          await workspace.bodies.read(job.file.resultHash),
          { width: width!, height: height! },
        );
        const doing = job.file.path;
        onProgress({ stage: 'pictures', done: ++done, total: shown.length, doing });
        return [{ job: job, crops }];
      }),
    ),
  );
  const entries = reviewed.flat().map(({ job: job, crops }, index): ReviewedPicture => {
    const name = `${ownFolders.review}${String(index + 1).padStart(3, '0')}`;
    files.set(`${name}-original.webp`, crops.before);
    files.set(`${name}-refit.webp`, crops.after);
    return {
      title: job.file.path,
      facts: factsOf(job, crops),
      before: `${name}-original.webp`,
      after: `${name}-refit.webp`,
      size: crops.size,
      worst: crops.worst,
    };
  });
  files.set(refitPapers.review, reviewHtml(entries));
  const { reviewPicture } = await import('../../images/review-picture.js');
  const rows = reviewed
    .flat()
    .slice(0, pictured)
    .map(({ job: job, crops }) => {
      return { crops, title: shorten(job.file.path, 120), facts: factsOf(job, crops) };
    });
  files.set(refitPapers.reviewPicture, await reviewPicture(rows));
  return files;
}

function factsOf({ file: { from, to } }: MadeJob, { similarity }: ReviewCrops): string {
  const pixels = (size: { width: number | null; height: number | null }) =>
    formatSize({ width: size.width ?? 0, height: size.height ?? 0 });
  return [
    `${pixels(from)} ${from.mediaType.replace('image/', '')} ${formatBytes(from.bytes)}`,
    `→ ${pixels(to)} ${to.format} ${formatBytes(to.bytes)}`,
    `(${formatShare(to.bytes, from.bytes)})`,
    `similarity ${similarity.toFixed(4)}`,
  ].join(' ');
}
