import { object } from 'yup';
import { compareDocument } from '../../output/json/compare.js';
import { compareCsv, compareMarkdown } from '../../output/compare-table.js';
import { drawComparison } from '../../output/terminal/compare.js';
import type { Workspace as OpenWorkspace } from '../../store/workspace.js';
import { shortText, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';
import { onlyOneForm } from '../one-form.js';

export const compareCommand = defineCommand({
  call: 'compare <before> <after>',
  describe: 'Set two clock sessions, or two HAR files, side by side',
  positionals: {
    before: 'Label of the session before, or a file that ends in .har',
    after: 'Label of the session after, or a file that ends in .har',
  },
  options: {
    anyway: { describe: 'Compare sessions whose conditions differ, too', type: 'boolean' },
    csv: { describe: 'Print the numbers as CSV', type: 'boolean' },
    markdown: { describe: 'Print them as a Markdown table, for a ticket', type: 'boolean' },
  },
  schema: object({
    before: shortText().required(),
    after: shortText().required(),
    anyway: yesOrNo().default(false),
    csv: yesOrNo().default(false),
    markdown: yesOrNo().default(false),
  }),
  examples: [
    ['compare before after', 'each marker, the bytes and the requests'],
    ['compare before after --json', 'for other programs'],
    ['compare before after --markdown', 'to paste into a ticket'],
    ['compare monday.har friday.har', 'two recordings of any origin'],
  ],
  run: async (settings, _, { screen, print, say }) => {
    const { workspace: folder, before, after, anyway, json, csv, markdown } = settings;
    onlyOneForm({ json, csv, markdown });
    const { Workspace } = await import('../../store/workspace.js');
    const { compare } = await import('../../tasks/compare.js');
    let opened: OpenWorkspace | undefined;
    const workspace = () => (opened ??= Workspace.openExisting(folder));
    try {
      const pages = await compare(workspace, before, after, anyway);
      if (csv) say(compareCsv(pages));
      else if (markdown) say(compareMarkdown(pages));
      else
        print(
          () => pages.map((page) => drawComparison(page, screen)).join('\n\n'),
          () => compareDocument(pages),
        );
      return 0;
    } finally {
      opened?.close();
    }
  },
});
