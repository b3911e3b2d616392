import type { FindingsView } from '../../output/views/findings.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of the findings by kind; the same as those of the other rankings. */
export const findingsForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/findings.js')).drawFindings,
  },
  json: jsonForm(async () => (await import('../../output/json/rank-findings.js')).findingsDocument),
  csv: {
    describe: 'Print the rows as CSV',
    print: async () => (await import('../../output/csv/findings.js')).findingsCsv,
  },
  markdown: {
    describe: 'Print the rows as a Markdown table',
    print: async () => (await import('../../output/markdown/findings.js')).findingsMarkdown,
  },
} satisfies Forms<FindingsView>;
