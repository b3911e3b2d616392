import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { gateForms } from '../forms/gate.js';
import { filePath, shortText, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

export const gateCommand = defineCommand({
  name: 'gate',
  describe: 'Hold the newest survey and loads against the budgets of the config file',
  positionals: {},
  options: {
    survey: shared.survey,
    session: option('Label of the loads to judge', shortText(), 'the newest of each page'),
    site: option('A host of the site', shortText(), 'that of the newest survey'),
    field: option(
      'File of what visitors measured (docs/history.md), for budgets with from: field',
      filePath(),
    ),
    suggest: option(
      'Print budgets that hold today with a margin, to start from',
      yesOrNo().default(false),
    ),
    top: shared.top(20, 'budgets that hold'),
    ...formOptions(gateForms),
  },
  examples: [
    ['gate --suggest', 'budgets that hold today, to paste into the config file'],
    ['gate', 'what does not hold, the worst first; exit status 1 if there is any'],
    ['gate --junit budgets.xml', 'test results for a build server'],
    ['gate --markdown', 'the body of a comment in a code review'],
    ['gate --survey november --session friday', 'a survey and loads by their labels'],
  ],
});
