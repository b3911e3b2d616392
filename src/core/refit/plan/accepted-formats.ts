import { filesOfJob } from '../markup/refitted-element.js';
import type { MadeJob } from '../refit-job.js';

/** A file in a format that every browser reads, and the same pixels in a modern one. */
export interface AcceptedFormat {
  /** Path below the refit's folder, and so on the site. */
  readonly path: string;
  /** Path of what browsers get that accept it. */
  readonly accepted: string;
  readonly mediaType: string;
}

/** Pairs of files from which a server can choose by the header `Accept`. */
export function acceptedFormats(jobs: readonly MadeJob[]): AcceptedFormat[] {
  return jobs.flatMap((job) => {
    const { format } = job.file.to;
    const modern = filesOfJob(job).filter((file) => file.format === format);
    return job.variants
      .filter(({ use }) => use === 'fallback')
      .flatMap(({ path, size }): AcceptedFormat[] => {
        const twin = modern.find(({ width }) => width === size.width);
        return twin ? [{ path, accepted: twin.path, mediaType: job.file.mediaType }] : [];
      });
  });
}
