import type { WorkerNews } from '../../tasks/fleet/worker.js';
import { skippedLines } from '../../output/words/skipped.js';
import { count } from '../../output/words/units.js';
import type { Handler } from '../command.js';
import type { workerCommand } from '../commands/worker.js';
import { fleetForms } from '../forms/fleet.js';
import { accessesOf } from '../options/access.js';
import { memoryOf } from '../options/shared.js';
import { program } from '../program.js';

export const handler: Handler<typeof workerCommand> = async (settings, file, io) => {
  const { list, name, tabs, browserState } = settings;
  const { Workspace } = await import('../../store/workspace.js');
  const workspace = Workspace.open(settings.workspace);
  try {
    if (list) {
      const { fleetState } = await import('../../tasks/fleet/fleet-state.js');
      await io.show(fleetForms, fleetState(workspace), settings);
      return;
    }
    const { measuresOf } = await import('../../tasks/fleet/measures.js');
    const { workForFleet } = await import('../../tasks/fleet/worker.js');
    await workForFleet(workspace, {
      ...{ signal: io.task.signal, onTrace: io.task.onTrace, onNotice: io.task.onNotice },
      ...{ name, tabs, browserState, ...memoryOf(settings) },
      accesses: accessesOf(file.access, settings, process.env),
      measures: measuresOf(program),
      onNews: (news) => io.say(newsWords(news)),
    });
  } finally {
    workspace.close();
  }
};

function newsWords(news: WorkerNews): string {
  switch (news.kind) {
    case 'ready':
      return `Ready for work, with ${news.measures}`;
    case 'leads':
      return `Leads ${news.survey}`;
    case 'finished': {
      const failed = news.pages.filter(({ error }) => error !== null).length;
      const which = failed === 0 ? '' : `, of which ${failed} failed`;
      return [
        `Finished ${news.survey.label}: ${count(news.pages.length, 'page')}${which}`,
        ...skippedLines(news.skipped),
      ].join('\n');
    }
    case 'failed':
      return `Gave up ${news.survey}: ${news.reason}`;
    case 'left':
      return `Stopped after ${count(news.tasks, 'task')}`;
  }
}
