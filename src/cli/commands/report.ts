import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { reportForms } from '../forms/report.js';
import { filePath, folderPath, shortText, textList, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

export const reportCommand = defineCommand({
  name: 'report',
  describe: 'Write a survey, with what was timed and tried, as one HTML file to mail and print',
  positionals: {},
  options: {
    out: option('HTML file to write', filePath().required('the file to write, given with --out')),
    survey: shared.survey,
    refit: option('Hand over the work list and markup in this folder of a refit', folderPath()),
    before: option(
      'Labels of sessions before a change, to be compared as well',
      textList('the label of a session').default([]),
    ),
    after: option(
      'Labels of the sessions after it, in the same sequence',
      textList('the label of a session').default([]),
    ),
    title: option('Title of the report', shortText(), 'the host of the site'),
    lean: option('Leave pictures out', yesOrNo().default(false)),
    redact: option('Leave out hosts, headers and query strings', yesOrNo().default(false)),
    overwrite: option(
      'Write over a file that is not a report of this program',
      yesOrNo().default(false),
    ),
    open: option('Open it in the browser', yesOrNo().default(false)),
    ...formOptions(reportForms),
  },
  examples: [
    ['report --out report.html --open', 'the newest survey'],
    ['report --out report.html --refit brindle-bay-refit', 'with a work list and markup to copy'],
    ['report --out autumn.html --survey autumn --lean', 'another survey, without pictures'],
    ['report --out report.html --redact', 'for people who must not know whose site it is'],
    ['report --out report.html --before monday --after friday', 'with two sessions compared'],
  ],
});
