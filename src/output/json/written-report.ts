import type { WrittenReport } from '../views/written-report.js';

/** A report that was written as the document `zealous-lynx.written-report/1`. */
export function writtenReportDocument(written: WrittenReport) {
  return { format: 'zealous-lynx.written-report/1', ...written };
}
