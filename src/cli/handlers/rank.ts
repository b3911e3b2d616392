import { rowsOf } from '../../core/rank/rank-view.js';
import { rankDocument } from '../../output/json/rank.js';
import { rankCsv, rankMarkdown } from '../../output/rank-table.js';
import { drawRanking } from '../../output/terminal/rank.js';
import { onlyOneForm } from '../one-form.js';
import { filtersOf } from '../rank-filters.js';
import type { Handler } from '../command.js';
import { usualRows } from '../commands/rank.js';
import type { schema } from '../commands/rank.js';

export const handler: Handler<typeof schema> = async (
  settings,
  { policy },
  { screen, task, print, say },
) => {
  const { csv, markdown, json, unweighted, sort } = settings;
  onlyOneForm({ json, csv, markdown });
  const by = settings.by ?? 'family';
  const top = settings.top ?? usualRows;
  const { Workspace } = await import('../../store/workspace.js');
  const { rank } = await import('../../tasks/rank.js');
  const workspace = Workspace.openExisting(settings.workspace);
  try {
    const { views } = workspace.surveys.find(settings.survey);
    const names = views.map(({ name }) => name);
    const { images, visits } = filtersOf(settings.where, names);
    const only = {
      pages: [...visits.pages, ...settings.page],
      groups: [...visits.groups, ...settings.group],
      views: visits.views,
    };
    const sheet = await rank(workspace, settings.survey, policy, { ...task, unweighted, only });
    const found = rowsOf(sheet, { by, sort, top, filter: images, policy });
    const narrowed = [
      ...settings.where,
      ...settings.page.map((pattern) => `page=${pattern}`),
      ...settings.group.map((pattern) => `group=${pattern}`),
    ].join(', ');
    const { findings } = settings;
    const drawing = { ...found, sheet, by, unweighted, narrowed, findings };
    if (csv) say(rankCsv(drawing));
    else if (markdown) say(rankMarkdown(drawing));
    else
      print(
        () => drawRanking(drawing, screen),
        () => rankDocument({ ...drawing, top: settings.top ?? 20 }),
      );
    return task.signal.aborted ? 130 : 0;
  } finally {
    workspace.close();
  }
};
