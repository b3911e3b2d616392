import { object, string } from 'yup';
import { oneOf, shortText } from '../checks.js';
import { defineCommand } from '../command.js';

const actions = ['list', 'rename', 'delete'] as const;

export const schema = object({
  action: oneOf(actions).default('list'),
  survey: string(),
  name: shortText(),
});

export const surveysCommand = defineCommand({
  call: 'surveys [action] [survey] [name]',
  describe: 'List the surveys of a workspace and their sizes, rename or delete one',
  positionals: {
    action: `${actions.join(', ')} [list]`,
    survey: 'Label of the survey to rename or delete',
    name: 'Its new label',
  },
  options: {},
  schema,
  examples: [
    ['surveys', 'all of them, the newest last, and what the workspace takes on disk'],
    ['surveys rename survey-3 before', 'call one by another name'],
    ['surveys delete survey-1', 'take one away, with the images that only it found'],
  ],
  load: () => import('../handlers/surveys.js'),
});
