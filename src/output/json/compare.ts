import type { SessionComparison } from '../../core/load/comparison.js';
import type { Looks } from '../../core/pixels/looks.js';
import type { PageRequest } from '../../core/load/request.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import type { Session } from '../../core/load/session.js';

/** Sessions before and after as the document `zealous-lynx.compare/1`. */
export function compareDocument(
  pages: readonly {
    readonly before: Session;
    readonly after: Session;
    readonly comparison: SessionComparison;
    readonly requests: readonly RequestChange[];
    readonly looks: Looks | null;
  }[],
) {
  const head = ({ id, label, page, startedAt, conditions, runs }: Session) => ({
    id,
    label,
    page,
    startedAt,
    conditions,
    runs: runs.length,
  });
  const side = (request: PageRequest | null) =>
    request && {
      url: request.url,
      type: request.type,
      start: request.start,
      end: request.end,
      transferBytes: request.transferBytes,
    };
  return {
    format: 'zealous-lynx.compare/1',
    pages: pages.map(({ before, after, comparison, requests, looks }) => ({
      before: head(before),
      after: head(after),
      ...comparison,
      looks: looks && {
        similarity: looks.similarity,
        changedShare: looks.changedShare,
        before: looks.before,
        after: looks.after,
        regions: looks.regions,
      },
      requests: requests.map(({ before: was, after: is, by, bytes, end }) => ({
        before: side(was),
        after: side(is),
        by,
        bytes,
        end,
      })),
    })),
  };
}
