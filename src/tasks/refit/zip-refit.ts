import { OutputError, messageOf } from '../../core/base/errors.js';
import { filesOf } from '../../core/refit/refit-manifest.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { zipFiles } from '../../store/zip-files.js';
import type { RefitResult } from './write-refit.js';

/**
 * Packs all that a refit has written into one ZIP file; what earlier refits left in the folder stays out.
 *
 * @throws OutputError when it cannot be written.
 */
export async function zipRefit({ folder, manifest }: RefitResult, target: string): Promise<void> {
  const own = filesOf({ ...manifest, earlier: [] }).map(({ path }) => path);
  try {
    await zipFiles(folder, [refitPapers.manifest, ...own], target);
  } catch (error) {
    throw new OutputError(`${target} cannot be written: ${messageOf(error)}`, {
      hint: 'the files themselves are in the folder',
      cause: error,
    });
  }
}
