import type { InferType } from 'yup';
import { UsageError } from '../../core/base/errors.js';
import { drawRefit } from '../../output/terminal/refit.js';
import type { RefitResult } from '../../tasks/write-refit.js';
import type { Handler } from '../command.js';
import { hostMapOf } from '../common-options.js';
import type { Ground } from '../config-file.js';
import type { Io } from '../io.js';
import type { schema } from '../commands/refit.js';

type Settings = InferType<typeof schema> & { readonly workspace: string };

export const handler: Handler<typeof schema> = async (settings, ground, io) => {
  const { screen, print, task } = io;
  const { top, zip, from } = settings;
  const result =
    from === undefined
      ? await ofSurvey(settings, ground, io)
      : await ofFolder(settings, from, ground, io);
  if (zip !== undefined && !result.dryRun && !result.interrupted) {
    const { zipRefit } = await import('../../tasks/zip-refit.js');
    await zipRefit(result, zip);
  }
  const zipped = zip !== undefined && !result.dryRun ? zip : null;
  print(
    () => drawRefit({ ...result, ...result.manifest, sheets: result.sheets, zipped }, top, screen),
    () => ({
      ...result.manifest,
      folder: result.folder,
      dryRun: result.dryRun,
      unchanged: result.unchanged,
      worklist: result.worklist,
      zip: zipped,
    }),
  );
  return task.signal.aborted ? 130 : 0;
};

async function ofSurvey(settings: Settings, ground: Ground, { task }: Io): Promise<RefitResult> {
  const { survey, out, widths, longest, mapHost } = settings;
  if (widths.length > 0 || longest !== undefined)
    throw new UsageError('--widths and --longest are for pictures of a folder', {
      hint: 'name it with --from; what a survey saw is made in the sizes that it needs',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { refit } = await import('../../tasks/refit.js');
  const { openImages } = await import('../../tasks/open-images.js');
  const { accessesOf } = await import('../access-settings.js');
  const workspace = Workspace.openExisting(settings.workspace);
  const accesses = accessesOf(ground.access, { basic: [], header: [], cookie: [] }, process.env);
  const images = openImages(workspace, survey, { hosts: hostMapOf(mapHost), accesses });
  try {
    const options = { ...task, ...wishesOf(settings), sheets: settings.sheet };
    return await refit(workspace, survey, out, ground.policy, { ...options, fetch: images.fetch });
  } finally {
    await images.close();
    workspace.close();
  }
}

async function ofFolder(
  settings: Settings,
  from: string,
  { policy }: Ground,
  { task }: Io,
): Promise<RefitResult> {
  const { survey, sheet, widths, longest = policy.ceilings.side, out } = settings;
  if (survey !== undefined || sheet.length > 0)
    throw new UsageError('--survey and --sheet are about pages, and --from is about a folder', {
      hint: 'leave --from out, or the others',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { refitPictures } = await import('../../tasks/refit-pictures.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    const options = { ...task, ...wishesOf(settings), limits: { longest, widths } };
    return await refitPictures(workspace, from, out, policy, options);
  } finally {
    workspace.close();
  }
}

function wishesOf({ name, rename, nameByAlt, credits, review, dryRun }: Settings) {
  return { name, rename, nameByAlt, credits, review, dryRun };
}
