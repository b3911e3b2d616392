import { groupBy } from '../../core/base/group-by.js';
import type { AcceptedFormat } from '../../core/refit/plan/accepted-formats.js';

/** Letters that mean nothing to a server's configuration. */
const plain = /^[\w.~/-]+$/;

/** The pairs that rules can name, by the media type of the modern format. */
export function byMediaType(pairs: readonly AcceptedFormat[]): Map<string, AcceptedFormat[]> {
  return groupBy(
    pairs.filter(({ path, accepted }) => plain.test(path) && plain.test(accepted)),
    ({ mediaType }) => mediaType,
  );
}
