import { object, string } from 'yup';
import { drawRefit } from '../../output/terminal/refit.js';
import { defineCommand } from '../command.js';
import { shared } from '../common-options.js';

const top = shared.top(20, 'files');

export const refitCommand = defineCommand({
  call: 'refit',
  describe: 'Write the right-sized files, in the folder structure of the originals',
  options: {
    out: {
      describe: 'Folder to write to; what refit did not write there is never touched',
      type: 'string',
      requiresArg: true,
    },
    survey: shared.survey.option,
    top: top.option,
  },
  schema: object({
    out: string().required('the folder to write to, given with --out'),
    survey: shared.survey.check,
    top: top.check,
  }),
  examples: [
    ['refit --out refit', 'the files of the newest survey, below refit/'],
    ['refit --survey before --out refit --json', 'and the manifest on stdout'],
  ],
  run: async (
    { workspace: folder, out, survey, top: rows },
    { policy },
    { screen, task, print },
  ) => {
    const { Workspace } = await import('../../store/workspace.js');
    const { refit } = await import('../../tasks/refit.js');
    const workspace = Workspace.openExisting(folder);
    try {
      const result = await refit(workspace, survey, out, policy, task);
      print(
        () => drawRefit({ ...result, ...result.manifest }, rows, screen),
        () => ({ ...result.manifest, folder: result.folder, unchanged: result.unchanged }),
      );
      return result.interrupted ? 130 : 0;
    } finally {
      workspace.close();
    }
  },
});
