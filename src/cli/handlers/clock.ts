import { UsageError } from '../../core/base/errors.js';
import type { Policy } from '../../core/policy/policy.js';
import type { ClockedPage } from '../../output/views/clock.js';
import { count } from '../../output/words/units.js';
import type { Handler } from '../command.js';
import type { clockCommand } from '../commands/clock.js';
import { clockForms } from '../forms/clock.js';
import { chooseForms } from '../forms/form.js';
import type { Io } from '../io.js';
import { visitorOf } from '../options/access-options.js';
import { namedNetwork, namedView } from '../options/named.js';
import { choiceOf } from '../options/requests.js';
import { hostsOf, memoryOf } from '../options/shared.js';
import { program } from '../program.js';

export const handler: Handler<typeof clockCommand> = async (
  settings,
  { views, networks, policy, access },
  io,
) => {
  const { har, page } = settings;
  if ((har === undefined) === (page.length === 0))
    throw new UsageError(
      har === undefined ? 'say which pages to load' : 'give either pages or --har, not both',
      { hint: 'clock <page…> loads pages, clock --har FILE reads a recording' },
    );
  chooseForms(clockForms, settings);
  if (har !== undefined && settings.film !== undefined)
    throw new UsageError('a recording has no film: its pages are not loaded', {
      hint: 'leave --film out, or give the pages',
    });
  const show = (sessions: readonly ClockedPage[]) =>
    io.show(clockForms, { sessions, choice: choiceOf(settings) }, settings);
  if (har !== undefined) {
    await show(await readRecording(har, settings.workspace, policy, io));
    return 0;
  }
  const network = namedNetwork(settings.network, networks);
  const view = namedView(settings.view, views);
  const { Workspace } = await import('../../store/workspace.js');
  const { clock } = await import('../../tasks/clock/clock.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    const { results, interrupted } = await clock(workspace, page, {
      ...io.task,
      label: settings.label,
      runs: settings.runs,
      network,
      view,
      cpuFactor: settings.cpu,
      timeout: settings.timeout === undefined ? undefined : settings.timeout * 1000,
      ...visitorOf(settings, access),
      quietWindow: settings.quietWindow,
      noInteractive: !settings.interactive,
      warm: settings.warm,
      film: settings.film !== undefined,
      ...hostsOf(settings),
      ...memoryOf(settings),
      policy,
      creator: program,
    });
    await show(results);
    return interrupted ? 130 : 0;
  } finally {
    workspace.close();
  }
};

/** Reads a HAR file as if its pages had been loaded here; a survey in the workspace gives the needed bytes of its images. */
async function readRecording(
  file: string,
  folder: string,
  policy: Policy,
  { log }: Io,
): Promise<readonly ClockedPage[]> {
  const { clockRecording } = await import('../../tasks/clock/clock-recording.js');
  const { Workspace } = await import('../../store/workspace.js');
  const workspace = Workspace.exists(folder) ? Workspace.openExisting(folder) : undefined;
  try {
    const { results, defects } = await clockRecording(workspace, file, policy);
    for (const { words, entries } of defects)
      log.warn(`${count(entries, 'entry', 'entries')}: ${words}`);
    return results;
  } finally {
    workspace?.close();
  }
}
