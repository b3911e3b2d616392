import type { FindingsView } from '../views/findings.js';
import { findingTitle } from '../words/findings.js';
import { csvOf } from './csv.js';

/** The findings of a survey by kind as CSV (RFC 4180). */
export function findingsCsv({ rows, top }: FindingsView): string {
  return csvOf(
    rows.slice(0, top).map((row) => ({
      finding: row.id,
      title: findingTitle(row.id),
      doer: row.doer ?? '',
      about: row.about,
      count: row.count,
      pages: row.pages,
      bytesPerVisit: row.bytesPerVisit === null ? null : Math.round(row.bytesPerVisit),
      timePerVisit: row.timePerVisit === null ? null : Math.round(row.timePerVisit),
      worst: row.worst,
    })),
  );
}
