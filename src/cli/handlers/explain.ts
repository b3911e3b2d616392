import { fixOf } from '../../core/refit/work/fix.js';
import type { Handler } from '../command.js';
import type { explainCommand } from '../commands/explain.js';
import { familyForms, fileForms, findingForms, imageForms, pageForms } from '../forms/explain.js';
import { warnOfNewest } from '../newest-survey.js';

export const handler: Handler<typeof explainCommand> = async (
  settings,
  { policy, groups },
  { task, show, log },
) => {
  const { workspace: folder, survey, what, top } = settings;
  const { Workspace } = await import('../../store/workspace.js');
  const { explain } = await import('../../tasks/explain.js');
  const workspace = Workspace.openExisting(folder);
  try {
    warnOfNewest(workspace, survey, log);
    const found = await explain(workspace, survey, what, policy, {
      ...task,
      groups,
    });
    if (found.kind === 'page') {
      await show(pageForms, { ...found, top }, settings);
      return 0;
    }
    if (found.kind === 'file') {
      await show(fileForms, { ...found, top }, settings);
      return 0;
    }
    if (found.kind === 'family') {
      await show(familyForms, { ...found, top }, settings);
      return 0;
    }
    if (found.kind === 'finding') {
      await show(findingForms, { ...found, top }, settings);
      return 0;
    }
    const fix = fixOf(found.image, policy.widths);
    await show(imageForms, { ...found, fix, density: policy.density, top }, settings);
    return task.signal.aborted ? 130 : 0;
  } finally {
    workspace.close();
  }
};
