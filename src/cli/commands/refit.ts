import { array, object, string } from 'yup';
import { isNamePattern } from '../../core/refit/refit-names.js';
import { defineCommand } from '../command.js';
import { shortText, textList, wholeNumber, yesOrNo } from '../checks.js';
import { shared } from '../common-options.js';

const top = shared.top(20, 'files');
const text = { type: 'string', requiresArg: true } as const;

/** So many images are shown beside their originals when nobody says otherwise. */
const usualReview = 24;

/** Numbers with commas between: widths in pixels. */
const widths = () => {
  const allowed = 'widths in pixels, like 480,960,1500';
  return array()
    .transform((value: unknown, original: unknown) =>
      typeof original === 'string' ? original.split(',').map(Number) : value,
    )
    .of(wholeNumber(1, 20_000).required())
    .typeError(allowed)
    .default([]);
};

export const schema = object({
  out: string().required('the folder to write to, given with --out'),
  survey: shared.survey.check,
  from: shortText(),
  widths: widths(),
  longest: wholeNumber(1, 20_000),
  name: string().test(
    'pattern',
    'a pattern of {stem}, {width}, {height}, {format} and {hash} (one of them {stem} or {hash}), with letters, digits, - _ . ~ between',
    (value) => value === undefined || isNamePattern(value),
  ),
  rename: shortText(),
  nameByAlt: yesOrNo().default(false),
  credits: shortText(),
  sheet: textList('the name of a page group, or the address of a page').default([]),
  review: wholeNumber(0, 10_000).default(usualReview),
  zip: shortText(),
  dryRun: yesOrNo().default(false),
  mapHost: shared.mapHost.check,
  top: top.check,
});

export const refitCommand = defineCommand({
  call: 'refit',
  describe: 'Write the right-sized files, with a work list and the markup for them',
  options: {
    out: {
      describe: 'Folder to write to; what refit did not write there is never touched',
      ...text,
    },
    survey: shared.survey.option,
    from: { describe: 'Take the pictures in this folder instead of a survey’s', ...text },
    widths: { describe: 'With --from: the widths to make, like 480,960,1500 [one file]', ...text },
    longest: { describe: 'With --from: pixels of the longest side at most [1500]', ...text },
    name: {
      describe: 'Names of files, made of {stem} {width} {height} {format} {hash}',
      ...text,
    },
    rename: { describe: 'CSV file with the columns old and new: new names', ...text },
    'name-by-alt': {
      describe: 'Name files by the alternative text, where --rename does not say',
      type: 'boolean',
    },
    credits: {
      describe:
        'CSV file with the columns image, title, description, keywords, creator, copyright: what is to stand in the files',
      ...text,
    },
    sheet: {
      describe: 'Join the small images of this page group or page into one sheet',
      ...text,
      array: true,
    },
    review: {
      describe: `Show so many images beside their originals; 0 for none [${usualReview}]`,
      ...text,
    },
    zip: { describe: 'Pack all of it into this ZIP file, too', ...text },
    'dry-run': { describe: 'Say what would be written, and write nothing', type: 'boolean' },
    'map-host': shared.mapHost.option,
    top: top.option,
  },
  schema,
  examples: [
    ['refit --out refit', 'the files of the newest survey, below refit/'],
    ['refit --out refit --dry-run', 'what that would write'],
    ['refit --out refit --name {stem}-{width}.{hash}', 'names that may be cached for ever'],
    ['refit --out refit --rename names.csv --zip refit.zip', 'new names, and a file to send'],
    ["refit --out refit --sheet '/programme/*/'", 'and the icons of these pages as one image'],
    ['refit --from camera --out ready --widths 480,960,1500', 'pictures that are not online yet'],
    ['refit --survey before --out refit --json', 'and the manifest on stdout'],
  ],
  load: () => import('../handlers/refit.js'),
});
