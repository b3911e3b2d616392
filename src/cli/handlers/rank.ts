import { UsageError } from '../../core/base/errors.js';
import { findingCounts } from '../../core/rank/finding-counts.js';
import { rowsOf } from '../../core/rank/rank-view.js';
import { rowTimes } from '../../core/rank/row-times.js';
import { findingRows } from '../../core/rank/finding-rows.js';
import type { Handler } from '../command.js';
import { usualRows } from '../commands/rank.js';
import type { rankCommand } from '../commands/rank.js';
import { findingsForms } from '../forms/findings.js';
import { chooseForms } from '../forms/form.js';
import { rankForms } from '../forms/rank.js';
import { warnOfNewest } from '../newest-survey.js';
import { isAll } from '../../core/rank/filter.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';
import type { RankResult } from '../../tasks/rank.js';
import { filtersOf } from '../options/rank-filters.js';

/** For whoever wants a file of all. */
const allRows = 1_000_000;

/** The most placements whose findings are counted by default. */
const soonLookedAt = 20_000;

/** The number of images that the JSON document lists by default. */
const usualImages = 20;

export const handler: Handler<typeof rankCommand> = async (
  settings,
  { policy, groups },
  { task, show, log },
) => {
  // A call that asks for two forms is refused before anything is worked out.
  chooseForms(rankForms, settings);
  const { unweighted, sort, findings } = settings;
  const by = settings.by ?? 'family';
  if (sort === 'time' && (by === 'cause' || by === 'host'))
    throw new UsageError(`--sort time says nothing of rows by ${by}`, {
      hint: 'take --by family, image, page, group or finding',
    });
  const top = settings.top ?? (settings.csv || settings.markdown ? allRows : usualRows);
  const { Workspace } = await import('../../store/workspace.js');
  const { rank } = await import('../../tasks/rank.js');
  const workspace = Workspace.openExisting(settings.workspace);
  try {
    warnOfNewest(workspace, settings.survey, log);
    const head = workspace.surveys.find(settings.survey);
    const names = head.views.map(({ name }) => name);
    const where = [...settings.where, ...settings.view.map((name) => `view=${name}`)];
    const { images, visits } = filtersOf(where, names, by !== 'finding');
    const only = {
      pages: [...visits.pages, ...settings.page],
      groups: [...visits.groups, ...settings.group],
      views: visits.views,
    };
    const narrowed = [
      ...where,
      ...settings.page.map((pattern) => `page=${pattern}`),
      ...settings.group.map((pattern) => `group=${pattern}`),
    ].join(', ');
    const isPlain = sort !== 'time' && narrowed === '' && !unweighted && !findings;
    if (by !== 'finding' && isPlain && isSummed(workspace, head)) {
      const { rankSummed } = await import('../../tasks/sums/rank-summed.js');
      const imageLimit = settings.json ? (settings.top ?? usualImages) : 0;
      const query = { by, sort, top, imageLimit };
      const summed = await rankSummed(workspace, settings.survey, policy, query, {
        ...{ ...task, groups },
      });
      if (summed) {
        await show(rankForms, { ...summed, by, unweighted, narrowed, imageLimit }, settings);
        return 0;
      }
      if (task.signal.aborted) return 130;
    }
    const result = await rank(workspace, settings.survey, policy, {
      ...task,
      unweighted,
      only,
      groups,
    });
    if (by === 'finding') {
      const { siteFindings } = await import('../../tasks/site-findings.js');
      const query = { by: 'image', sort, top: 0, filter: images, policy } as const;
      const { findings: ids = [], ...more } = images;
      // What else filters images has nothing to say of other files.
      const site = isAll(more)
        ? siteFindings(workspace, result).filter(({ id }) => ids.length === 0 || ids.includes(id))
        : [];
      const rows = findingRows(rowsOf(result, query).images, site, sort).filter(
        ({ id }) => ids.length === 0 || ids.includes(id),
      );
      const isNamed = settings.survey !== undefined;
      const shown = {
        ...{ rows, result, narrowed, isNamed },
        ...{ muted: policy.mute, top: settings.top ?? allRows },
      };
      await show(findingsForms, shown, settings);
      return task.signal.aborted ? 130 : 0;
    }
    const timed = sort === 'time' ? await timesOf(workspace, result) : {};
    const found = rowsOf(result, { by, sort, top, filter: images, policy, ...timed });
    const imageLimit = settings.top ?? usualImages;
    const { facts } = result.ledger;
    const isQuick = facts.placements.length <= soonLookedAt;
    const counts = findings || isQuick ? findingCounts(found.images, facts.pictures) : undefined;
    const view = {
      ...{ ...found, ...timed, result, by, unweighted, narrowed, imageLimit, found: counts },
    };
    await show(rankForms, view, settings);
    return task.signal.aborted ? 130 : 0;
  } finally {
    workspace.close();
  }
};

/** Whether a survey is so large that it is added up in parts. */
function isSummed({ pages }: Workspace, head: SurveyHead): boolean {
  return head.finishedAt !== null && pages.parts(head) > 1;
}

/** How the time is told that rows would spare, and of which pages it is. */
async function timesOf(workspace: Workspace, result: RankResult) {
  const { timedPages } = await import('../../tasks/timed-pages.js');
  const { pages, network } = timedPages(workspace, result);
  return { timeOf: rowTimes(result, pages), timed: { pages: pages.length, network } };
}
