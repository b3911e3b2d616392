import { defineCommand } from '../command.js';
import { filePath, folderPath, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';

export const demoCommand = defineCommand({
  name: 'demo',
  describe: 'Run the whole story on a site that comes with the program',
  positionals: {},
  options: {
    serve: option('Only serve the site, until Ctrl-C', yesOrNo().default(false)),
    port: option('Port to serve on', wholeNumber(0, 65_535).default(0), 'any free one'),
    out: option('Folder for the right-sized files', folderPath().default('brindle-bay-refit')),
    report: option('HTML file for the report', filePath().default('brindle-bay-report.html')),
  },
  examples: [
    ['demo', 'survey, rank, refit, trial, clock, compare and report'],
    ['demo --serve --port 8080', 'only serve the site'],
  ],
});
