import { acceptedFormats } from '../../core/refit/plan/accepted-formats.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import type { PictureUse } from '../../core/survey/picture-use.js';

/**
 * Which paths of a refit take the place of which addresses, as the document `zealous-lynx.rewrites/1`.
 *
 * @param uses the pictures that pages name without showing them there
 */
export function rewritesDocument(jobs: readonly MadeJob[], uses: readonly PictureUse[] = []) {
  return {
    format: 'zealous-lynx.rewrites/1',
    rewrites: jobs.flatMap(({ file, variants }) => {
      const { path, mediaType, to } = file;
      const { width, height, bytes } = to;
      const files = [
        { path, mediaType, width, height, bytes },
        ...variants.map((variant) => ({
          path: variant.path,
          mediaType: `image/${variant.format}`,
          ...variant.size,
          bytes: variant.bytes,
        })),
      ].sort((a, b) => (a.width ?? 0) - (b.width ?? 0) || (a.path < b.path ? -1 : 1));
      return file.originals.map((from) => ({
        from,
        to: path,
        files,
        uses: uses.filter(({ url }) => url === from).map(({ kind, page }) => ({ kind, page })),
      }));
    }),
    accept: acceptedFormats(jobs),
  };
}
