import { drawRefit } from '../../output/terminal/refit.js';
import type { Handler } from '../command.js';
import type { schema } from '../commands/refit.js';

export const handler: Handler<typeof schema> = async (
  { workspace: folder, out, survey, top: rows, dryRun },
  { policy },
  { screen, task, print },
) => {
  const { Workspace } = await import('../../store/workspace.js');
  const { refit } = await import('../../tasks/refit.js');
  const workspace = Workspace.openExisting(folder);
  try {
    const result = await refit(workspace, survey, out, policy, { ...task, dryRun });
    print(
      () => drawRefit({ ...result, ...result.manifest }, rows, screen),
      () => ({ ...result.manifest, folder: result.folder, unchanged: result.unchanged }),
    );
    return result.interrupted ? 130 : 0;
  } finally {
    workspace.close();
  }
};
