import { UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { surveysCommand } from '../commands/surveys.js';
import { surveysForms } from '../forms/survey.js';

export const handler: Handler<typeof surveysCommand> = async (settings, _file, { show }) => {
  const { workspace: folder, action, survey, name } = settings;
  if ((action !== 'list') !== (survey !== undefined) || (action === 'rename') !== !!name)
    throw new UsageError(`${action} takes ${taken[action]}`, {
      hint: `write zealous-lynx surveys ${calls[action]}`,
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { deleteSurvey } = await import('../../tasks/survey/delete-survey.js');
  const workspace = Workspace.openExisting(folder);
  try {
    if (action === 'rename') workspace.surveys.rename(workspace.surveys.find(survey).id, name!);
    if (action === 'delete') await deleteSurvey(workspace, survey!);
    const view = { surveys: workspace.surveys.list(), size: await workspace.size() };
    await show(surveysForms, view, settings);
  } finally {
    workspace.close();
  }
};

const taken = {
  list: 'no label',
  rename: 'the label of a survey and its new label',
  delete: 'the label of a survey, and nothing else',
} as const;

const calls = { list: 'list', rename: 'rename LABEL NAME', delete: 'delete LABEL' } as const;
