import { resolve } from 'node:path';
import { UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { reportCommand } from '../commands/report.js';
import { chooseForms } from '../forms/form.js';
import { reportForms } from '../forms/report.js';
import { warnOfNewest } from '../newest-survey.js';
import { program } from '../program.js';

export const handler: Handler<typeof reportCommand> = async (
  settings,
  { policy, groups },
  { task, show, log },
) => {
  chooseForms(reportForms, settings);
  const { out, survey, before, after, overwrite } = settings;
  if (before.length !== after.length)
    throw new UsageError(
      `--before names ${before.length} ${before.length === 1 ? 'label' : 'labels'} and --after ${after.length}`,
      { hint: 'give as many labels with --before as with --after' },
    );
  const { Workspace } = await import('../../store/workspace.js');
  const { makeReport } = await import('../../tasks/report/report.js');
  const { writeReport } = await import('../../tasks/report/write-report.js');
  const workspace = Workspace.openExisting(settings.workspace);
  try {
    warnOfNewest(workspace, survey, log);
    for (const label of [...before, ...after]) workspace.sessions.find(label);
    const { html, ...made } = await makeReport(workspace, policy, {
      ...{ ...task, survey, groups, program },
      pairs: before.map((label, at) => [label, after[at]!] as const),
      ...{ refit: settings.refit, title: settings.title },
      ...{ lean: settings.lean, redact: settings.redact },
    });
    if (task.signal.aborted) return 130;
    await writeReport(out, html, overwrite);
    await show(reportForms, { ...made, file: out, bytes: Buffer.byteLength(html) }, settings);
    if (settings.open) await (await import('open')).default(resolve(out));
    return 0;
  } finally {
    workspace.close();
  }
};
