import type { CompareSurveysView } from '../../output/views/compare-surveys.js';
import { compareForms } from './compare.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of comparing surveys; the options are those of `compare`. */
export const compareSurveysForms = {
  text: {
    describe: compareForms.text.describe,
    print: async () =>
      (await import('../../output/terminal/compare-surveys.js')).drawSurveyComparison,
  },
  json: jsonForm(
    async () => (await import('../../output/json/compare-surveys.js')).compareSurveysDocument,
  ),
  csv: {
    describe: compareForms.csv.describe,
    print: async () => (await import('../../output/csv/compare-surveys.js')).compareSurveysCsv,
  },
  markdown: {
    describe: compareForms.markdown.describe,
    print: async () =>
      (await import('../../output/markdown/compare-surveys.js')).compareSurveysMarkdown,
  },
} satisfies Forms<CompareSurveysView>;
