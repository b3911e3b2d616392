import { UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { historyCommand } from '../commands/history.js';
import { chooseForms } from '../forms/form.js';
import { historyForms } from '../forms/history.js';

export const handler: Handler<typeof historyCommand> = async (
  settings,
  { policy, groups },
  { task, show },
) => {
  chooseForms(historyForms, settings);
  const { before, after, site, measure, field, top } = settings;
  if ((before === undefined) !== (after === undefined))
    throw new UsageError('history takes two labels, or none', {
      hint: 'write zealous-lynx history BEFORE AFTER',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { history } = await import('../../tasks/history/history.js');
  const workspace = Workspace.openExisting(settings.workspace);
  try {
    const between =
      before === undefined || after === undefined ? undefined : ([before, after] as const);
    const options = { ...task, policy, groups, site, measure, field, between };
    const found = await history(workspace, options);
    await show(historyForms, { ...found, top }, settings);
    return task.signal.aborted ? 130 : 0;
  } finally {
    workspace.close();
  }
};
