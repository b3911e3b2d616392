import { array, string } from 'yup';
import { isNamePattern } from '../../core/refit/plan/refit-names.js';
import { defineCommand } from '../command.js';
import { formOptions } from '../forms/form.js';
import { refitForms } from '../forms/refit.js';
import { filePath, folderPath, textList, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

/** Numbers separated by commas: widths in pixels. */
const widths = () => {
  const allowed = 'widths in pixels, like 480,960,1500';
  return array()
    .transform((_value: unknown, original: unknown) =>
      (Array.isArray(original) ? (original as unknown[]) : [original])
        .flatMap((part) => (typeof part === 'string' ? part.split(',') : part))
        .map(Number),
    )
    .of(wholeNumber(1, 20_000).required())
    .typeError(allowed)
    .default([]);
};

export const refitCommand = defineCommand({
  name: 'refit',
  describe: 'Write the right-sized files, with a work list and the markup for them',
  positionals: {},
  options: {
    out: option(
      'Folder to write to; files there that refit did not write are never touched',
      folderPath().required('the folder to write to, given with --out'),
    ),
    survey: shared.survey,
    from: option('Use the pictures in this folder instead of a survey', folderPath()),
    widths: option('With --from: the widths to make, like 480,960,1500', widths(), 'one file'),
    longest: option(
      'With --from: longest side in pixels at most',
      wholeNumber(1, 20_000),
      'the policy: 1500',
    ),
    name: option(
      'Pattern for file names, made of {stem} {width} {height} {format} {hash}',
      string().test(
        'pattern',
        'a pattern of {stem}, {width}, {height}, {format} and {hash} (at least {stem} or {hash}), with letters, digits, - _ . ~ between',
        (value) => value === undefined || isNamePattern(value),
      ),
    ),
    rename: option('CSV file with the columns old and new: new names', filePath()),
    nameByAlt: option(
      'Name files by their alternative text, unless --rename names them',
      yesOrNo().default(false),
    ),
    credits: option(
      'CSV file with the columns image, title, description, keywords, creator, copyright to write into the files',
      filePath(),
    ),
    sheet: option(
      'Join the small images of this page group or page into one sprite',
      textList('the name of a page group, or the address of a page').default([]),
    ),
    review: option(
      'Show this many images beside their originals; 0 for none',
      wholeNumber(0, 10_000).default(24),
    ),
    prove: option(
      'Try the markup in its pages, in every view, and hand out only what holds',
      yesOrNo().default(true),
    ),
    zip: option('Also pack everything into this ZIP file', filePath()),
    dryRun: option('Say what would be written, and write nothing', yesOrNo().default(false)),
    mapHost: shared.mapHost,
    allowHost: shared.allowHost,
    memory: shared.memory,
    top: shared.top(20, 'files'),
    ...formOptions(refitForms),
  },
  examples: [
    ['refit --out refit', 'the files of the newest survey, below refit/'],
    ['refit --out refit --dry-run', 'what that would write'],
    ['refit --out refit --name {stem}-{width}.{hash}', 'names that may be cached for ever'],
    ['refit --out refit --rename names.csv --zip refit.zip', 'new names, and a file to send'],
    ["refit --out refit --sheet '/programme/*/'", 'and the icons of these pages as one image'],
    ['refit --from camera --out ready --widths 480,960,1500', 'pictures that are not online yet'],
    ['refit --out refit --no-prove', 'without loading any page'],
    ['refit --survey before --out refit --json', 'and the manifest on stdout'],
  ],
});
