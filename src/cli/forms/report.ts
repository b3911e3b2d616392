import type { WrittenReport } from '../../output/views/written-report.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms in which it is told that a report was written. */
export const reportForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/report.js')).drawWrittenReport,
  },
  json: jsonForm(
    async () => (await import('../../output/json/written-report.js')).writtenReportDocument,
  ),
} satisfies Forms<WrittenReport>;
