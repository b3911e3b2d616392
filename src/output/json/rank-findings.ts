import type { FindingsView } from '../views/findings.js';
import { findingTitle } from '../words/findings.js';
import { surveyHeadDocument } from './survey-head.js';

/** The findings of a survey by kind as the document `zealous-lynx.findings/1`. */
export function findingsDocument({ rows, result, muted, top }: FindingsView) {
  const { survey, pages } = result;
  return {
    format: 'zealous-lynx.findings/1',
    survey: surveyHeadDocument(survey, pages.length),
    findings: rows.slice(0, top).map((row) => ({
      id: row.id,
      title: findingTitle(row.id),
      about: row.about,
      doer: row.doer,
      count: row.count,
      pages: row.pages,
      bytesPerVisit: row.bytesPerVisit === null ? null : Math.round(row.bytesPerVisit),
      timePerVisit: row.timePerVisit === null ? null : Math.round(row.timePerVisit),
      worst: row.worst,
    })),
    muted: muted.map(({ finding, address = null, group = null, reason }) => {
      return { finding, address, group, reason };
    }),
  };
}
