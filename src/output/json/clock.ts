import { unfinishedTime, visuallyCompleteAt } from '../../core/pixels/film.js';
import { bytesByHost } from '../../core/load/host-bytes.js';
import { markerNames } from '../../core/load/markers.js';
import { record } from '../../core/base/record.js';
import { requestTypes } from '../../core/load/request.js';
import { findingDocuments } from './findings.js';
import type { ClockedPage, ClockView } from '../views/clock.js';

/** One session as `zealous-lynx.clock/1`, several as `zealous-lynx.clock-set/1`. */
export function clockDocument({ sessions }: ClockView) {
  const documents = sessions.map(sessionDocument);
  return documents.length === 1
    ? documents[0]!
    : { format: 'zealous-lynx.clock-set/1', sessions: documents };
}

/** A session as the document `zealous-lynx.clock/1`; the requests are those of the median run. */
export function sessionDocument({
  session,
  summary,
  medianRun,
  findings,
  film,
  harFile,
}: ClockedPage) {
  const { id, label, page, startedAt, conditions, runs } = session;
  return {
    format: 'zealous-lynx.clock/1',
    session: { id, label, page, startedAt },
    conditions,
    runs: runs.map(({ requests, ...run }) => ({ ...run, requestCount: requests.length })),
    median: {
      markers: record(markerNames, (name) => summary.markers[name]?.median ?? null),
      requestCount: summary.requestCount.median,
      bytes: summary.bytes.median,
      bytesByType: record(requestTypes, (type) => summary.bytesByType[type].median),
    },
    hosts: bytesByHost(medianRun.requests),
    summary,
    requests: medianRun.requests.map(
      ({ requestHeaders: _, responseHeaders: __, ...request }) => request,
    ),
    findings: findingDocuments(findings),
    film: film && {
      load: film.load,
      visuallyComplete: visuallyCompleteAt(film.frames),
      unfinishedTime: unfinishedTime(film.frames),
      frames: film.frames.map(({ at, completeness }) => ({ at, completeness })),
    },
    harFile,
  };
}
