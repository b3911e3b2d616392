import { viewsOfAudience } from '../../core/visitors/audience.js';
import { SettingError, UsageError } from '../../core/base/errors.js';
import { hasFailed } from '../../core/survey/failed-survey.js';
import { chooseViews } from '../../core/visitors/view.js';
import type { View } from '../../core/visitors/view.js';
import { surveyForms } from '../forms/survey.js';
import { visitorOf } from '../options/access-options.js';
import type { FileSettings } from '../options/config-file.js';
import { hostsOf, memoryOf } from '../options/shared.js';
import { defaultPages, queryRuleOf } from '../options/survey.js';
import type { RankView } from '../../output/views/rank.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../../tasks/progress.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Log } from '../log.js';
import type { Handler } from '../command.js';
import type { surveyCommand } from '../commands/survey.js';

type Settings = Parameters<typeof handler>[0];

export const handler: Handler<typeof surveyCommand> = async (
  settings,
  file,
  { task, show, log },
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
  const common = {
    ...task,
    policy: file.policy,
    groups: file.groups,
    tabs: settings.tabs,
    ...hostsOf(settings),
    ...memoryOf(settings),
    ignoreRobots: settings.ignoreRobots,
    ...visitorOf(settings, file.access),
    pace: settings.pace,
    retries: settings.retries,
    limits: { load: settings.timeout * 1000, images: 8_000 },
    noBodies: !settings.bodies,
    noPictures: !settings.pictures,
    noEncodes: !settings.encode,
  };
  const views = await viewsFor(settings, file);
  const scope = await scopeOf(settings);
  const workspace = Workspace.open(settings.workspace);
  try {
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
              list,
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

/** How many slot families are shown at the end of a survey. */
const worstShown = 3;

async function worstOf(
  workspace: Workspace,
  label: string,
  { policy, groups }: FileSettings,
  task: TaskOptions,
): Promise<RankView> {
  const [{ rank }, { rowsOf }] = await Promise.all([
    import('../../tasks/rank.js'),
    import('../../core/rank/rank-view.js'),
  ]);
  const result = await rank(workspace, label, policy, { ...task, groups });
  const query = { by: 'family', sort: 'waste', top: worstShown, filter: {}, policy } as const;
  const shown = { by: query.by, unweighted: false, narrowed: '', imageLimit: 0 };
  return { ...rowsOf(result, query), ...shown, result };
}

async function scopeOf(settings: Settings) {
  const { start, list, perGroup, include, exclude, within, ignoreCanonical } = settings;
  const { readAddressList } = await import('../../crawl/address-list.js');
  const listed = list === undefined ? 0 : readAddressList(list).length;
  return {
    pages: settings.pages ?? Math.max(defaultPages, listed),
    depth: settings.depth ?? (start.length > 0 ? undefined : 0),
    perGroup,
    include,
    exclude,
    within,
    query: queryRuleOf(settings.query),
    ignoreCanonical,
  };
}

/** The views of the audience or of the config file, reduced to those requested. */
async function viewsFor(
  { audience, viewsMax, view }: Settings,
  file: FileSettings,
): Promise<readonly View[]> {
  const { readAudience } = await import('../../crawl/audience-file.js');
  const views =
    audience === undefined ? file.views : viewsOfAudience(readAudience(audience), viewsMax);
  if (view.length === 0) return views;
  const unknown = view.find((name) => !views.some((one) => one.name === name));
  if (unknown === undefined) return chooseViews(views, view);
  const names = views.map(({ name }) => name).join(', ');
  throw new SettingError(`--view: expected one of ${names}, found ${JSON.stringify(unknown)}`);
}
