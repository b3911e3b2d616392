import { UsageError } from '../../core/base/errors.js';
import { hasFailed } from '../../core/survey/failed-survey.js';
import { surveyForms } from '../forms/survey.js';
import type { FileSettings } from '../options/config-file.js';
import { scopeOf, surveySettings, viewsFor } from '../survey-settings.js';
import type { RankView } from '../../output/views/rank.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../../tasks/progress.js';
import type { Policy } from '../../core/policy/policy.js';
import type { FirstRanking } from '../../tasks/survey/first-ranking.js';
import type { Crew, SurveyOptions } from '../../tasks/survey/survey-options.js';
import { count } from '../../output/words/units.js';
import { program } from '../program.js';
import type { Io } from '../io.js';
import type { Log } from '../log.js';
import type { Handler } from '../command.js';
import type { surveyCommand } from '../commands/survey.js';

export const handler: Handler<typeof surveyCommand> = async (
  settings,
  file,
  { task, show, tell, log, say },
) => {
  const { start, resume, list, sitemap, changedSince } = settings;
  const given = start.length > 0 || sitemap.length > 0 || list !== undefined;
  if (changedSince !== undefined && (resume || start.length > 0 || list !== undefined))
    throw new UsageError('--changed-since has the starts of the survey it names', {
      hint: 'leave out --resume, the starts and the list; --sitemap may tell what changed',
    });
  if (changedSince === undefined && resume === given)
    throw new UsageError(
      resume ? 'a survey is resumed from its own starts' : 'say where to start',
      {
        hint: resume
          ? 'leave out the starts, the list and the sitemaps'
          : 'give an address or a folder, --list, --sitemap, --changed-since or --resume',
      },
    );
  const { Workspace } = await import('../../store/workspace.js');
  const { resumeSurvey, survey } = await import('../../tasks/survey/survey.js');
  const { surveyChanged } = await import('../../tasks/survey/survey-changed.js');
  const settled = { ...task, ...surveySettings(settings, file) };
  const views = await viewsFor(settings, file);
  const { readAddressList } = await import('../../crawl/address-list.js');
  const listed = list === undefined ? [] : readAddressList(list);
  const scope = scopeOf(settings, listed.length);
  const workspace = Workspace.open(settings.workspace);
  try {
    const common = {
      ...{ ...settled, crew: settings.handOver ? undefined : await crewFor(workspace) },
      onFirstRanking: (first: FirstRanking) => tellFirst(first, file, tell),
    };
    if (settings.handOver)
      return await handOver(workspace, settings, { ...common, views, scope, listed }, say);
    if (settings.refit.length > 0) await learnRefits(workspace, settings.refit, file.policy, log);
    const result =
      changedSince !== undefined
        ? await surveyChanged(workspace, {
            ...common,
            since: changedSince,
            sitemaps: sitemap,
            label: settings.label,
          })
        : resume
          ? await resumeSurvey(workspace, { ...common, survey: settings.survey })
          : await survey(workspace, start, {
              ...common,
              views,
              scope,
              listed,
              sitemaps: sitemap,
              label: settings.label,
            });
    const isWhole = !result.interrupted && settings.encode && settings.bodies && !settings.json;
    const ranking = isWhole ? await worstOf(workspace, result.survey.label, file, task) : undefined;
    await show(surveyForms, { ...result, top: settings.top, ranking }, settings);
    if (result.interrupted) return 130;
    return hasFailed(result.pages) ? 3 : 0;
  } finally {
    workspace.close();
  }
};

/** The workers of a workspace on a server, who help as long as they are there. */
async function crewFor(workspace: Workspace): Promise<Crew | undefined> {
  if (!workspace.fleet) return undefined;
  const { crewOf } = await import('../../tasks/fleet/crew.js');
  const { measuresOf } = await import('../../tasks/fleet/measures.js');
  return crewOf(workspace, measuresOf(program), false);
}

async function handOver(
  workspace: Workspace,
  { start, label, sitemap, resume, changedSince }: Parameters<typeof handler>[0],
  options: Omit<SurveyOptions, 'label' | 'sitemaps'>,
  say: (words: string) => void,
): Promise<void> {
  if (resume || changedSince !== undefined)
    throw new UsageError('only a new survey can be handed over', {
      hint: 'leave out --resume and --changed-since',
    });
  const { handOverSurvey } = await import('../../tasks/fleet/hand-over.js');
  const head = await handOverSurvey(workspace, start, { ...options, label, sitemaps: sitemap });
  const workers = workspace.fleet!.store.workers().length;
  say(
    `Handed over ${head.label} to ${count(workers, 'worker')}.` +
      (workers === 0 ? ' Start zealous-lynx worker on any machine.' : ''),
  );
}

async function learnRefits(
  workspace: Workspace,
  folders: readonly string[],
  policy: Policy,
  log: Log,
): Promise<void> {
  const { learnRefit } = await import('../../tasks/survey/learn-refit.js');
  for (const folder of folders)
    if ((await learnRefit(workspace, folder, policy)) === null)
      log.warn(
        `${folder} was made by another policy or version: its files are judged like all others`,
      );
}

/** How many slot families are shown at the end of a survey, and as its first answer. */
const worstShown = 3;
const firstShown = 5;

/** How the slot families of a survey are ranked. */
const byFamily = { by: 'family', sort: 'waste' } as const;
const shown = { by: byFamily.by, unweighted: false, narrowed: '', imageLimit: 0 };

async function tellFirst(
  { result, estimated }: FirstRanking,
  { policy }: FileSettings,
  tell: Io['tell'],
): Promise<void> {
  const [{ rowsOf }, { drawFirstRanking }] = await Promise.all([
    import('../../core/rank/rank-view.js'),
    import('../../output/terminal/first-ranking.js'),
  ]);
  const rows = rowsOf(result, { ...byFamily, top: firstShown, filter: {}, policy });
  if (rows.rows.length === 0) return;
  const ranking = { ...rows, ...shown, result };
  tell((screen) => drawFirstRanking({ ranking, estimated }, screen));
}

async function worstOf(
  workspace: Workspace,
  label: string,
  { policy, groups }: FileSettings,
  task: TaskOptions,
): Promise<RankView> {
  const [{ rank }, { rowsOf }, { rankSummed }] = await Promise.all([
    import('../../tasks/rank.js'),
    import('../../core/rank/rank-view.js'),
    import('../../tasks/sums/rank-summed.js'),
  ]);
  const options = { ...task, groups };
  const query = { ...byFamily, top: worstShown };
  const summed = await rankSummed(workspace, label, policy, { ...query, imageLimit: 0 }, options);
  if (summed) return { ...summed, ...shown };
  const result = await rank(workspace, label, policy, options);
  return { ...rowsOf(result, { ...query, filter: {}, policy }), ...shown, result };
}
