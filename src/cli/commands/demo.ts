import { defineCommand } from '../command.js';
import { filePath, folderPath, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';

export const demoCommand = defineCommand({
  name: 'demo',
  describe: 'Run the whole story on a site that comes with the program',
  positionals: {},
  options: {
    serve: option('Only serve the site, until Ctrl-C', yesOrNo().default(false)),
    weeks: option(
      'Tell the story of four weeks instead: refitted, an upload that breaks budgets, mended',
      yesOrNo().default(false),
    ),
    picture: option(
      'With --weeks: PNG file for the numbers over time',
      filePath().default('brindle-bay-history.png'),
    ),
    port: option('Port to serve on', wholeNumber(0, 65_535).default(0), 'any free one'),
    out: option('Folder for the right-sized files', folderPath().default('brindle-bay-refit')),
    report: option('HTML file for the report', filePath().default('brindle-bay-report.html')),
  },
  examples: [
    ['demo', 'survey, rank, refit, trial, clock, compare and report'],
    ['demo --weeks', 'four weeks of a watch: budgets, an alarm, and the history as a picture'],
    ['demo --serve --port 8080', 'only serve the site'],
  ],
});
