import type { SessionComparison } from '../../core/comparison.js';
import type { Session } from '../../core/session.js';

/** Sessions before and after as the document `zealous-lynx.compare/1`. */
export function compareDocument(
  pages: readonly {
    readonly before: Session;
    readonly after: Session;
    readonly comparison: SessionComparison;
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
  return {
    format: 'zealous-lynx.compare/1',
    pages: pages.map(({ before, after, comparison }) => ({
      before: head(before),
      after: head(after),
      ...comparison,
    })),
  };
}
