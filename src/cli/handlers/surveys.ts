import { UsageError } from '../../core/base/errors.js';
import { surveysDocument } from '../../output/json/surveys.js';
import { drawSurveys } from '../../output/terminal/surveys.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/surveys.js';

export const handler: Handler<typeof schema> = async (
  { workspace: folder, action, survey, name },
  _ground,
  { screen, print },
) => {
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
};

const wants = {
  list: 'no label',
  rename: 'the label of a survey, and the name it is to have',
  delete: 'the label of a survey, and nothing else',
} as const;
