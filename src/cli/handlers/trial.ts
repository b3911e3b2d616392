import { PageError, UsageError } from '../../core/base/errors.js';
import type { Handler } from '../command.js';
import type { trialCommand } from '../commands/trial.js';
import { chooseForms } from '../forms/form.js';
import { trialForms } from '../forms/trial.js';
import { visitorOf } from '../options/access-options.js';
import { namedNetwork, namedView } from '../options/named.js';
import { choiceOf } from '../options/requests.js';
import { hostsOf, memoryOf } from '../options/shared.js';
import { program } from '../program.js';

export const handler: Handler<typeof trialCommand> = async (
  settings,
  { views, networks, access, groups },
  io,
) => {
  const { har, page, group, runs } = settings;
  const given = page.length + group.length;
  if ((har === undefined) === (given === 0))
    throw new UsageError(
      har === undefined ? 'say which page to try fixes on' : 'give either pages or --har, not both',
      {
        hint: 'trial <page…> and trial --group NAME record pages, trial --har FILE replays a recording',
      },
    );
  chooseForms(trialForms, settings);
  const network = namedNetwork(settings.network, networks);
  const view = namedView(settings.view, views);
  const { Workspace } = await import('../../store/workspace.js');
  const { pagesOfGroups } = await import('../../tasks/trial/pages-of-groups.js');
  const { trial } = await import('../../tasks/trial/trial.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    const { survey, ofGroup } = settings;
    const grouped =
      group.length > 0 ? pagesOfGroups(workspace, survey, group, ofGroup, groups) : [];
    const { pages, interrupted } = await trial(workspace, [...page, ...grouped], {
      ...io.task,
      ...{ label: settings.label, runs, network, view, har },
      mostRuns: Math.max(runs, settings.mostRuns),
      cpuFactor: settings.cpu,
      warm: settings.warm,
      timeout: settings.timeout === undefined ? undefined : settings.timeout * 1000,
      ...visitorOf(settings, access),
      ...hostsOf(settings),
      ...memoryOf(settings),
      refit: settings.refit,
      files: settings.files,
      withoutHosts: settings.withoutHost,
      fixes: settings.fix.flatMap(byComma),
      without: settings.without.flatMap(byComma),
      each: settings.each,
      film: settings.film !== undefined,
      creator: program,
    });
    if (pages.length === 0)
      throw new PageError('stopped before both sides were loaded once', {
        hint: 'run it again; --runs 3 is the least that gives an interval',
      });
    const { waterfalls } = settings;
    await io.show(trialForms, { pages, choice: choiceOf(settings), waterfalls }, settings);
    return interrupted ? 130 : 0;
  } finally {
    workspace.close();
  }
};

function byComma(names: string): string[] {
  return names.split(',').map((name) => name.trim());
}
