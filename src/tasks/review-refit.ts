import pLimit from 'p-limit';
import { ownFolders, papers } from '../core/refit/refit-job.js';
import type { MadeJob } from '../core/refit/refit-job.js';
import { formatSize } from '../core/base/size.js';
import { picturesAtOnce } from '../images/at-once.js';
import type { ReviewCrops } from '../images/review-crops.js';
import { reviewHtml } from '../output/html/review.js';
import type { ReviewedPicture } from '../output/html/review.js';
import { shorten } from '../output/words/plain-text.js';
import { formatBytes, formatShare } from '../output/words/units.js';
import type { Workspace } from '../store/workspace.js';
import type { ReadBody } from './make-orders.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';

/** So many are in the picture; the page has all of them. */
const pictured = 4;

/** What is told of one picture. */
interface Reviewed {
  readonly order: MadeJob;
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
  orders: readonly MadeJob[],
  read: ReadBody,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<Map<string, string | Buffer>> {
  const files = new Map<string, string | Buffer>();
  const shown = orders.filter(({ file }) => file.to.width !== null);
  if (shown.length === 0) return files;
  const { reviewCrops } = await import('../images/review-crops.js');
  const limit = pLimit(picturesAtOnce);
  let done = 0;
  const reviewed = await Promise.all(
    shown.map((order) =>
      limit(async (): Promise<Reviewed[]> => {
        if (signal?.aborted) return [];
        const { width, height } = order.file.to;
        const crops = await reviewCrops(
          await read(order.file.contentHash),
          await workspace.bodies.read(order.file.resultHash),
          { width: width!, height: height! },
        );
        const doing = order.file.path;
        onProgress({ stage: 'pictures', done: ++done, total: shown.length, doing });
        return [{ order, crops }];
      }),
    ),
  );
  const entries = reviewed.flat().map(({ order, crops }, index): ReviewedPicture => {
    const name = `${ownFolders.review}${String(index + 1).padStart(3, '0')}`;
    files.set(`${name}-original.webp`, crops.before);
    files.set(`${name}-refit.webp`, crops.after);
    return {
      title: order.file.path,
      facts: factsOf(order, crops),
      before: `${name}-original.webp`,
      after: `${name}-refit.webp`,
      size: crops.size,
      worst: crops.worst,
    };
  });
  files.set(papers.review, reviewHtml(entries));
  const { reviewPicture } = await import('../images/review-picture.js');
  const rows = reviewed
    .flat()
    .slice(0, pictured)
    .map(({ order, crops }) => {
      return { crops, title: shorten(order.file.path, 120), facts: factsOf(order, crops) };
    });
  files.set(papers.reviewPicture, await reviewPicture(rows));
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
