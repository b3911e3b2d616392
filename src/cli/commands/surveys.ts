import { object, string } from 'yup';
import { UsageError } from '../../core/errors.js';
import { surveysDocument } from '../../output/json/surveys.js';
import { drawSurveys } from '../../output/terminal/surveys.js';
import { oneOf, shortText } from '../checks.js';
import { defineCommand } from '../command.js';

const actions = ['list', 'rename', 'delete'] as const;

export const surveysCommand = defineCommand({
  call: 'surveys [action] [survey] [name]',
  describe: 'List the surveys of a workspace and their sizes, rename or delete one',
  positionals: {
    action: `${actions.join(', ')} [list]`,
    survey: 'Label of the survey to rename or delete',
    name: 'Its new label',
  },
  options: {},
  schema: object({
    action: oneOf(actions).default('list'),
    survey: string(),
    name: shortText(),
  }),
  examples: [
    ['surveys', 'all of them, the newest last, and what the workspace takes on disk'],
    ['surveys rename survey-3 before', 'call one by another name'],
    ['surveys delete survey-1', 'take one away, with the images that only it found'],
  ],
  run: async ({ workspace: folder, action, survey, name }, _ground, { screen, print }) => {
    if ((action !== 'list') !== (survey !== undefined) || (action === 'rename') !== !!name)
      throw new UsageError(`${action} wants ${wants[action]}`, {
        hint: `say zealous-lynx surveys ${action}${action === 'list' ? '' : ' LABEL'}${action === 'rename' ? ' NAME' : ''}`,
      });
    const { Workspace } = await import('../../store/workspace.js');
    const { deleteSurvey } = await import('../../tasks/delete-survey.js');
    const workspace = Workspace.openExisting(folder);
    try {
      if (action === 'rename') workspace.surveys.rename(workspace.surveys.find(survey).id, name!);
      if (action === 'delete') await deleteSurvey(workspace, survey!);
      const surveys = workspace.surveys.list();
      const size = await workspace.size();
      print(
        () => drawSurveys(surveys, size, screen),
        () => surveysDocument(surveys, size),
      );
    } finally {
      workspace.close();
    }
  },
});

const wants = {
  list: 'no label',
  rename: 'the label of a survey, and the name it is to have',
  delete: 'the label of a survey, and nothing else',
} as const;
