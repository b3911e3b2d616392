import { string } from 'yup';
import { defineCommand } from '../command.js';
import { oneOf, shortText } from '../options/checks.js';
import { option } from '../options/option.js';

const actions = ['list', 'rename', 'delete', 'check'] as const;

export const surveysCommand = defineCommand({
  name: 'surveys',
  describe:
    'List the surveys of a workspace and their sizes, rename or delete one, or check what is kept',
  positionals: {
    action: option(`${actions.join(', ')} [list]`, oneOf(actions).default('list')),
    survey: option('Label of the survey to rename, delete or check', string()),
    name: option('Its new label', shortText()),
  },
  options: {},
  examples: [
    ['surveys', 'all of them, the newest last, and the size of the workspace on disk'],
    ['surveys rename survey-3 before', 'give a survey another label'],
    ['surveys check', 'hold everything that is kept against what it should be'],
    ['surveys delete survey-1', 'delete a survey, with the images that only it found'],
  ],
});
