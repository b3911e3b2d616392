import { UsageError } from '../../core/base/errors.js';
import type { RefitResult } from '../../tasks/refit/write-refit.js';
import type { Handler } from '../command.js';
import type { refitCommand } from '../commands/refit.js';
import { refitForms } from '../forms/refit.js';
import type { FileSettings } from '../options/config-file.js';
import { warnOfNewest } from '../newest-survey.js';
import { hostsOf, memoryOf } from '../options/shared.js';
import type { Io } from '../io.js';

type Settings = Parameters<typeof handler>[0];

export const handler: Handler<typeof refitCommand> = async (settings, file, io) => {
  const { show, task } = io;
  const { top, zip, from } = settings;
  const result =
    from === undefined
      ? await ofSurvey(settings, file, io)
      : await ofFolder(settings, from, file, io);
  if (zip !== undefined && !result.dryRun && !result.interrupted) {
    const { zipRefit } = await import('../../tasks/refit/zip-refit.js');
    await zipRefit(result, zip);
  }
  const zipped = zip !== undefined && !result.dryRun ? zip : null;
  const view = { ...result.manifest, ...result, zipped, top };
  await show(refitForms, view, settings);
  return task.signal.aborted ? 130 : 0;
};

async function ofSurvey(
  settings: Settings,
  file: FileSettings,
  { task, log }: Io,
): Promise<RefitResult> {
  const { survey, out, widths, longest } = settings;
  if (widths.length > 0 || longest !== undefined)
    throw new UsageError('--widths and --longest are for pictures in a folder', {
      hint: 'name the folder with --from; images of a survey are made in the sizes that they need',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { refit } = await import('../../tasks/refit/refit.js');
  const { openImages } = await import('../../tasks/refit/open-images.js');
  const { accessesOf } = await import('../options/access.js');
  const workspace = Workspace.openExisting(settings.workspace);
  warnOfNewest(workspace, survey, log);
  const accesses = accessesOf(file.access, { basic: [], header: [], cookie: [] }, process.env);
  const images = openImages(workspace, survey, { ...hostsOf(settings), accesses });
  const pages = settings.prove
    ? { reach: images.reach, accesses, ...memoryOf(settings) }
    : undefined;
  try {
    const { groups } = file;
    const options = { ...task, ...wishesOf(settings), sheets: settings.sheet, groups };
    return await refit(workspace, survey, out, file.policy, {
      ...{ ...options, fetch: images.fetch, refusal: images.refusal, pages },
    });
  } finally {
    await images.close();
    workspace.close();
  }
}

async function ofFolder(
  settings: Settings,
  from: string,
  { policy }: FileSettings,
  { task }: Io,
): Promise<RefitResult> {
  const { survey, sheet, widths, longest = policy.ceilings.side, out } = settings;
  if (survey !== undefined || sheet.length > 0)
    throw new UsageError('--survey and --sheet work on pages, and --from works on a folder', {
      hint: 'leave out --from, or the others',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const { refitPictures } = await import('../../tasks/refit/refit-pictures.js');
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
