import { UsageError } from '../../core/base/errors.js';
import type { RoundView } from '../../output/views/round.js';
import type { Handler } from '../command.js';
import type { watchCommand } from '../commands/watch.js';
import { roundForms } from '../forms/round.js';
import { visitorOf } from '../options/access-options.js';
import { channelsOf } from '../options/alarms.js';
import { millisecondsOf } from '../options/duration.js';
import { namedNetwork } from '../options/named.js';
import { hostsOf, memoryOf } from '../options/shared.js';
import { program } from '../program.js';
import { scopeOf, surveySettings, viewsFor } from '../survey-settings.js';
import { writeResult } from '../write-result.js';

export const handler: Handler<typeof watchCommand> = async (
  settings,
  file,
  { task, show, log },
) => {
  const { start, sitemap, once, clock: pages, metrics, metricsFile } = settings;
  if (start.length === 0 && sitemap.length === 0)
    throw new UsageError('say what to watch', { hint: 'give an address or a folder' });
  const network = namedNetwork(settings.network, file.networks);
  const channels = channelsOf(file.alarms, process.env);
  const views = await viewsFor(settings, file);
  const scope = scopeOf(settings);
  const { Workspace } = await import('../../store/workspace.js');
  const { watch } = await import('../../tasks/watch/watch.js');
  const { serveMetrics } = await import('../../tasks/watch/serve-metrics.js');
  const workspace = Workspace.open(settings.workspace);
  const server = metrics === undefined ? undefined : await serveMetrics(metrics);
  if (server) log.warn(`the figures are served at ${server.address}`);
  try {
    const visitor = visitorOf(settings, file.access);
    const last = await watch(workspace, {
      ...task,
      starts: start,
      survey: { ...surveySettings(settings, file), views, scope, sitemaps: sitemap },
      fullEvery: settings.fullEvery,
      clock: {
        pages,
        options: {
          ...{ runs: settings.runs, network, view: views[0]!, cpuFactor: settings.cpu },
          ...{ ...visitor, ...hostsOf(settings), ...memoryOf(settings) },
          ...{ policy: file.policy, creator: program, noInteractive: true },
        },
      },
      label: settings.label,
      // Told apart to the second: two rounds never begin in one.
      labelOf: (startedAt) => `${settings.label}-${startedAt.slice(0, 19)}Z`,
      ...{ keep: settings.keep, field: settings.field },
      ...{ budgets: file.budgets, channels },
      every: once ? null : millisecondsOf(settings.every),
      onRemark: (words) => log.warn(words),
      onRound: async (round: RoundView) => {
        const { metricsText } = await import('../../output/openmetrics/metrics.js');
        const figures = server || metricsFile !== undefined ? await metricsText(round) : '';
        server?.set(figures);
        if (metricsFile !== undefined) await writeResult(metricsFile, figures, '--metrics-file');
        await show(roundForms, round, settings);
      },
    });
    if (task.signal.aborted) return 130;
    return last ? statusOf(last) : 0;
  } finally {
    await server?.close();
    workspace.close();
  }
};

function statusOf({ outcome, troubles }: RoundView): number {
  if (outcome === 'down' || outcome === 'failed') return 3;
  return troubles.length > 0 ? 1 : 0;
}
