import { UsageError } from '../../core/base/errors.js';
import type { Workspace as OpenWorkspace } from '../../store/workspace.js';
import type { Handler } from '../command.js';
import type { compareCommand } from '../commands/compare.js';
import { compareForms } from '../forms/compare.js';
import { compareSurveysForms } from '../forms/compare-surveys.js';
import { chooseForms } from '../forms/form.js';
import { choiceOf } from '../options/requests.js';

type Settings = Parameters<typeof handler>[0];

export const handler: Handler<typeof compareCommand> = async (settings, { policy }, io) => {
  const { workspace: folder, before, after, anyway, waterfalls, top } = settings;
  chooseForms(compareForms, settings);
  const { Workspace } = await import('../../store/workspace.js');
  let opened: OpenWorkspace | undefined;
  const workspace = () => (opened ??= Workspace.openExisting(folder));
  try {
    const known = () => Workspace.exists(folder) && areSurveys(workspace(), before, after);
    if (settings.surveys || known()) {
      refuseLoads(settings);
      const { compareSurveyLabels } = await import('../../tasks/survey/compare-surveys.js');
      const compared = await compareSurveyLabels(workspace(), before, after, policy, io.task);
      await io.show(compareSurveysForms, { compared, top }, settings);
      return io.task.signal.aborted ? 130 : 0;
    }
    const { compare } = await import('../../tasks/clock/compare.js');
    const pages = await compare(workspace, before, after, anyway, settings.tried);
    await io.show(compareForms, { pages, choice: choiceOf(settings), waterfalls }, settings);
    return 0;
  } finally {
    opened?.close();
  }
};

/** Whether both labels are those of surveys, and not both are those of sessions: a watch gives its label to both. */
function areSurveys({ surveys, sessions }: OpenWorkspace, ...labels: readonly string[]): boolean {
  const [surveyed, clocked] = [surveys.labels(), sessions.labels()];
  const are = (known: readonly string[]) => labels.every((label) => known.includes(label));
  return are(surveyed) && !are(clocked);
}

/** @throws UsageError for an option that only loads have. */
function refuseLoads({ waterfalls, tried, svg, png, looks, only, host }: Settings): void {
  const asked = {
    waterfalls,
    tried,
    svg,
    png,
    looks,
    only: only.length > 0,
    host: host.length > 0,
  };
  const [first] = Object.entries(asked).flatMap(([name, given]) => (given ? [name] : []));
  if (first !== undefined)
    throw new UsageError(`--${first} needs loads, and surveys have none`, {
      hint: 'leave it out, or compare sessions of clock without --surveys',
    });
}
