import { object, string } from 'yup';
import { defineCommand } from '../command.js';
import { yesOrNo } from '../checks.js';
import { shared } from '../common-options.js';

const top = shared.top(20, 'files');

export const schema = object({
  out: string().required('the folder to write to, given with --out'),
  survey: shared.survey.check,
  dryRun: yesOrNo().default(false),
  top: top.check,
});

export const refitCommand = defineCommand({
  call: 'refit',
  describe: 'Write the right-sized files, with a work list and the markup for them',
  options: {
    out: {
      describe: 'Folder to write to; what refit did not write there is never touched',
      type: 'string',
      requiresArg: true,
    },
    survey: shared.survey.option,
    'dry-run': { describe: 'Say what would be written, and write nothing', type: 'boolean' },
    top: top.option,
  },
  schema,
  examples: [
    ['refit --out refit', 'the files of the newest survey, below refit/'],
    ['refit --out refit --dry-run', 'what that would write'],
    ['refit --survey before --out refit --json', 'and the manifest on stdout'],
  ],
  load: () => import('../handlers/refit.js'),
});
