import type { RankView } from '../../output/views/rank.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of a ranking. */
export const rankForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/rank.js')).drawRanking,
  },
  json: jsonForm(async () => (await import('../../output/json/rank.js')).rankDocument),
  csv: {
    describe: 'Print the rows as CSV',
    print: async () => (await import('../../output/csv/rank.js')).rankCsv,
  },
  markdown: {
    describe: 'Print the rows as a Markdown table',
    print: async () => (await import('../../output/markdown/rank.js')).rankMarkdown,
  },
} satisfies Forms<RankView>;
