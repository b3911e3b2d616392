import { string } from 'yup';
import { defineCommand } from '../command.js';
import { oneOf, shortText, wholeNumber, yesOrNo } from '../options/checks.js';
import { option } from '../options/option.js';

const actions = ['list', 'rename', 'delete', 'check', 'thin'] as const;

/** The surveys that thinning leaves whole. */
const usuallyKept = 10;

export const surveysCommand = defineCommand({
  name: 'surveys',
  describe:
    'List the surveys of a workspace and their sizes, rename or delete one, check what is kept, or thin out old ones',
  positionals: {
    action: option(`${actions.join(', ')} [list]`, oneOf(actions).default('list')),
    survey: option('Label of the survey to rename, delete or check', string()),
    name: option('Its new label', shortText()),
  },
  options: {
    keep: option(
      'With thin: the newest surveys that stay whole',
      wholeNumber(1, 100_000).default(usuallyKept),
    ),
    dryRun: option('With thin: only say what would be taken away', yesOrNo().default(false)),
  },
  examples: [
    ['surveys', 'all of them, the newest last, and the size of the workspace on disk'],
    ['surveys rename survey-3 before', 'give a survey another label'],
    ['surveys check', 'hold everything that is kept against what it should be'],
    ['surveys thin --keep 10 --dry-run', 'which old surveys would be reduced to their figures'],
    ['surveys thin --keep 10', 'reduce them: history still has their numbers'],
    ['surveys delete survey-1', 'delete a survey, with the images that only it found'],
  ],
});
