import { object } from 'yup';
import { shortText, yesOrNo } from '../checks.js';
import { defineCommand } from '../command.js';
import { requestOptions } from '../request-options.js';

const requests = requestOptions(20);

export const schema = object({
  before: shortText().required(),
  after: shortText().required(),
  anyway: yesOrNo().default(false),
  surveys: yesOrNo().default(false),
  waterfalls: yesOrNo().default(false),
  ...requests.checks,
  looks: shortText(),
  csv: yesOrNo().default(false),
  markdown: yesOrNo().default(false),
});

export const compareCommand = defineCommand({
  call: 'compare <before> <after>',
  describe: 'Set two clock sessions, two HAR files or two surveys side by side',
  positionals: {
    before: 'Label of the session or survey before, or a file that ends in .har',
    after: 'Label of the session or survey after, or a file that ends in .har',
  },
  options: {
    anyway: { describe: 'Compare sessions whose conditions differ, too', type: 'boolean' },
    surveys: {
      describe: 'The labels are those of surveys, though there are sessions of that name, too',
      type: 'boolean',
    },
    waterfalls: {
      describe: 'Draw both waterfalls as well, one above the other on one time axis',
      type: 'boolean',
    },
    ...requests.options,
    looks: {
      describe: 'Draw the page before, after, and what differs, into this file as PNG',
      type: 'string',
      requiresArg: true,
    },
    csv: { describe: 'Print the numbers as CSV', type: 'boolean' },
    markdown: { describe: 'Print them as a Markdown table, for a ticket', type: 'boolean' },
  },
  schema,
  examples: [
    ['compare before after', 'each marker, the bytes and the requests'],
    ['compare before after --waterfalls --only image', 'with the images of both on one axis'],
    ['compare before after --png both.png', 'both waterfalls as a picture'],
    ['compare before after --looks looks.png', 'does the page still look the same?'],
    ['compare before after --json', 'for other programs'],
    ['compare before after --markdown', 'to paste into a ticket'],
    ['compare monday.har friday.har', 'two recordings of any origin'],
    ['compare survey-1 survey-2', 'every image and page of two surveys'],
  ],
  load: () => import('../handlers/compare.js'),
});
