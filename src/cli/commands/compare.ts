import { defineCommand } from '../command.js';
import { compareForms } from '../forms/compare.js';
import { formOptions } from '../forms/form.js';
import { shortText, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { requestOptions } from '../options/requests.js';

const side = (which: string) =>
  option(
    `Label of the session or survey ${which}, or a file that ends in .har`,
    shortText().required('a label or a .har file'),
  );

export const compareCommand = defineCommand({
  name: 'compare',
  describe: 'Compare two clock sessions, two HAR files or two surveys',
  positionals: { before: side('before'), after: side('after') },
  options: {
    anyway: option('Compare sessions even if their conditions differ', yesOrNo().default(false)),
    surveys: option(
      'The labels are those of surveys, even if there are sessions with these names',
      yesOrNo().default(false),
    ),
    tried: option('Label of a trial: whether the change is what it had measured', shortText()),
    waterfalls: option('Draw both waterfalls as well, on one time axis', yesOrNo().default(false)),
    ...requestOptions(20),
    ...formOptions(compareForms),
  },
  examples: [
    ['compare before after', 'each marker, the bytes and the requests'],
    ['compare before after --waterfalls --only image', 'with the images of both on one axis'],
    ['compare before after --png both.png', 'both waterfalls as a picture'],
    ['compare before after --looks looks.png', 'does the page still look the same?'],
    ['compare before after --tried tried', 'did it bring what the trial had said?'],
    ['compare before after --json', 'for other programs'],
    ['compare before after --markdown', 'to paste into a ticket'],
    ['compare monday.har friday.har', 'two recordings of any origin'],
    ['compare survey-1 survey-2', 'every image and page of two surveys'],
  ],
});
