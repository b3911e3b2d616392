import { UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { surveysCommand } from '../commands/surveys.js';
import { surveysForms } from '../forms/survey.js';
import type { WorkspaceCheck } from '../../output/views/surveys.js';
import { surveyLease } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import type { Thinned, ThinOptions } from '../../tasks/history/thin-surveys.js';
import type { FileSettings } from '../options/config-file.js';

export const handler: Handler<typeof surveysCommand> = async (settings, file, { show, task }) => {
  const { workspace: folder, action, survey, name, keep, dryRun } = settings;
  const isWrong =
    ((action === 'list' || action === 'thin') && survey !== undefined) ||
    ((action === 'rename' || action === 'delete') && survey === undefined) ||
    (action === 'rename') !== !!name;
  if (isWrong)
    throw new UsageError(`${action} takes ${taken[action]}`, {
      hint: `write zealous-lynx surveys ${calls[action]}`,
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { deleteSurvey } = await import('../../tasks/survey/delete-survey.js');
  const workspace = Workspace.openExisting(folder);
  try {
    if (action === 'rename') workspace.surveys.rename(workspace.surveys.find(survey).id, name!);
    if (action === 'delete') await deleteSurvey(workspace, survey!);
    const check = action === 'check' ? await checkOf(workspace, survey) : null;
    const thinned =
      action === 'thin'
        ? await thinnedOf(workspace, { ...task, ...file, keep, dryRun, needed: neededBy(file) })
        : null;
    const surveys = check && check.database.length > 0 ? [] : workspace.surveys.list();
    const running = surveys.filter(({ id }) => workspace.leases.isHeld(surveyLease(id)));
    const view = { surveys, running: running.map(({ id }) => id), check, thinned };
    await show(surveysForms, { ...view, size: await workspace.size() }, settings);
    return check && check.database.length > 0 ? 3 : 0;
  } finally {
    workspace.close();
  }
};

async function thinnedOf(workspace: Workspace, options: ThinOptions): Promise<Thinned> {
  const { thinSurveys } = await import('../../tasks/history/thin-surveys.js');
  return thinSurveys(workspace, options);
}

/** Labels of surveys that budgets are set against. */
function neededBy({ budgets }: Pick<FileSettings, 'budgets'>): string[] {
  return budgets.flatMap(({ against }) => against ?? []);
}

async function checkOf(workspace: Workspace, label: string | undefined): Promise<WorkspaceCheck> {
  const { checkWorkspace } = await import('../../tasks/survey/check-workspace.js');
  const { surveys } = workspace;
  return checkWorkspace(workspace, label === undefined ? surveys.list() : [surveys.find(label)]);
}

const taken = {
  list: 'no label',
  rename: 'the label of a survey and its new label',
  delete: 'the label of a survey, and nothing else',
  check: 'the label of a survey, or none for all',
  thin: 'no label',
} as const;

const calls = {
  list: 'list',
  rename: 'rename LABEL NAME',
  delete: 'delete LABEL',
  check: 'check',
  thin: 'thin --keep 10',
} as const;
