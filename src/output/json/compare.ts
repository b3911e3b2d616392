import { record } from '../../core/base/record.js';
import { changesAgree } from '../../core/load/agreement.js';
import { markerNames } from '../../core/load/markers.js';
import { serverShift } from '../../core/load/server-shift.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Session } from '../../core/load/session.js';
import type { ComparedPageView, CompareView } from '../views/compare.js';

/** Sessions before and after as the document `zealous-lynx.compare/1`. */
export function compareDocument({ pages }: Pick<CompareView, 'pages'>) {
  return { format: 'zealous-lynx.compare/1', pages: pages.map(pageDocument) };
}

function pageDocument(page: ComparedPageView) {
  return { ...comparedPageDocument(page), tried: page.tried && agreements(page) };
}

/** What a trial had said of each marker, and whether what was measured since agrees. */
function agreements({ tried, comparison }: ComparedPageView) {
  return record(markerNames, (name) => {
    const { difference, interval } = tried!.markers[name];
    return {
      difference,
      interval,
      agrees: changesAgree(tried!.markers[name], comparison.markers[name]),
    };
  });
}

/** One page before and after, as documents have it. */
export function comparedPageDocument({
  before,
  after,
  comparison,
  requests,
  looks,
}: ComparedPageView) {
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
    before: head(before),
    after: head(after),
    ...comparison,
    serverShift: serverShift(comparison.markers),
    looks: looks && {
      similarity: looks.similarity,
      changedShare: looks.changedShare,
      restlessShare: looks.restlessShare,
      before: looks.before,
      after: looks.after,
      regions: looks.regions,
    },
    requests: requests.map(({ before: was, after: is, by, putOff, bytes, end }) => ({
      before: side(was),
      after: side(is),
      by,
      putOff,
      bytes,
      end,
    })),
  };
}
