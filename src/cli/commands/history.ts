import { string } from 'yup';
import { figureMeasures } from '../../core/history/figures.js';
import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { historyForms } from '../forms/history.js';
import { filePath, oneOf, shortText } from '../options/checks.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

export const historyCommand = defineCommand({
  name: 'history',
  describe: 'Show what was measured of a site over time, and what moved and why',
  positionals: {
    before: option('Label of a survey, to say what moved from there', string()),
    after: option('Label of the survey up to which', string()),
  },
  options: {
    site: option('A host of the site', shortText(), 'that of the newest survey'),
    measure: option('Say what moved of this', oneOf(figureMeasures).default('bytes')),
    field: option(
      'File of what visitors measured (docs/history.md), to show beside the loads',
      filePath(),
    ),
    top: shared.top(8, 'rows of each list of what moved'),
    ...formOptions(historyForms),
  },
  examples: [
    ['history', 'all numbers over time, and what moved between the two newest surveys'],
    ['history summer autumn --measure waste', 'what lies behind the difference of two surveys'],
    ['history --png history.png', 'the numbers as a picture'],
    ['history --field visitors.csv', 'with what the browsers of visitors measured'],
    ['history --csv', 'every measurement, for a spreadsheet'],
  ],
});
