import { splitCredentials } from '../../core/address/access.js';
import { originOf } from '../../core/address/address.js';
import { UsageError } from '../../core/base/errors.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { Frontier } from '../../crawl/frontier.js';
import type { Scope } from '../../crawl/scope.js';
import { Robots, robotsLimit } from '../../crawl/robots.js';
import { parseStart } from '../../crawl/start.js';
import { surveyLease } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import { fetcher } from './fetcher.js';
import { readSitemaps, vouchedFor } from './read-sitemaps.js';
import { openStarts } from './starts.js';
import type { ResumeOptions, SurveyOptions, SurveyResult } from './survey-options.js';
import { workOn } from './survey-work.js';
import type { BegunSurvey } from './survey-work.js';

export type { ResumeOptions, SurveyOptions, SurveyResult } from './survey-options.js';

/**
 * Crawls from the starts, a list and sitemaps, measures every image on every page in every view, encodes
 * each at its need, and keeps it all in the workspace, page by page. What goes wrong with a page is a
 * row of the result.
 *
 * @throws BrowserError when no browser can be started; UsageError, NotFoundError for a wrong start, list
 *   or sitemap.
 */
export async function survey(
  workspace: Workspace,
  starts: readonly string[],
  options: SurveyOptions,
): Promise<SurveyResult> {
  const all = await openAll(starts, options);
  const { open, accesses } = all;
  return workOn(workspace, open, { ...options, accesses }, (robots) =>
    begin(workspace, all, options, robots),
  );
}

/** The starts of a survey as they can be opened, without what lets somebody in. */
async function openAll(starts: readonly string[], options: SurveyOptions) {
  const listed = options.listed ?? [];
  const listedOrigins = [...new Set(listed.map(({ url }) => originOf(url)))];
  const split = starts.map(splitCredentials);
  const given = split.map(({ address }) => address);
  const accesses = [...(options.accesses ?? []), ...split.flatMap(({ access }) => access ?? [])];
  const open = await openStarts(given, options, [
    ...listedOrigins,
    ...vouchedFor(options.sitemaps ?? []),
  ]);
  return { open, given, accesses, listedOrigins };
}

/** Begins a survey: it stands in the workspace with all that it is to begin with. */
async function begin(
  workspace: Workspace,
  { open, given, accesses, listedOrigins }: Awaited<ReturnType<typeof openAll>>,
  options: SurveyOptions,
  robots: Robots,
): Promise<BegunSurvey> {
  const within = [...open.urls, ...listedOrigins];
  const sitemaps = options.sitemaps ?? [];
  const named = await readSitemaps(
    sitemaps,
    within,
    robots,
    fetcher({ ...options, accesses }, open.reach),
  );
  // Where there is nothing else to go by, the hosts that a sitemap names are the ones that are meant.
  if (within.length === 0) within.push(...named.pages);
  const frontier = new Frontier(within, options.scope);
  frontier.begin(open.urls.map((url) => ({ url, visits: null })));
  frontier.begin(options.listed ?? []);
  frontier.add(named.pages, 0);
  const hosts = [...new Set(within.map(originOf))];
  const plan = { given, hosts, scope: { ...options.scope } };
  const now = workspace.now();
  const head = workspace.surveys.begin(
    options.label,
    now,
    open.urls.length > 0 ? open.urls : hosts,
    options.views,
    plan,
    (id) => {
      const { due, skipped } = frontier.takeFound();
      workspace.pages.noteFound(id, { due, skipped: [...named.problems, ...skipped] });
    },
  );
  return { head, frontier, visited: 0 };
}

/**
 * Begins a survey and leaves the work to others.
 *
 * @throws UsageError for a folder, which is on this machine alone; NotFoundError for a wrong list or sitemap.
 */
export async function beginForOthers(
  workspace: Workspace,
  starts: readonly string[],
  options: SurveyOptions,
): Promise<SurveyHead> {
  if (starts.some((start) => parseStart(start).kind === 'folder'))
    throw new UsageError('a folder of this machine cannot be handed over', {
      hint: 'give the address of a site, or leave out --hand-over',
    });
  const all = await openAll(starts, options);
  try {
    const robots = new Robots(
      fetcher({ ...options, accesses: all.accesses }, all.open.reach, robotsLimit),
    );
    return (await begin(workspace, all, options, robots)).head;
  } finally {
    await all.open.close();
  }
}

/**
 * Goes on with a survey that was interrupted, by whatever means: pages that are kept are not loaded
 * again, and none that was found is lost.
 *
 * @throws NotFoundError when there is no such survey; UsageError when it had come to its end; BusyError when another program is
 *   at work on it.
 */
export async function resumeSurvey(
  workspace: Workspace,
  options: ResumeOptions,
): Promise<SurveyResult> {
  const head = workspace.surveys.find(options.survey);
  // Before a browser is started: until it is, the other program may have come to its end.
  workspace.leases.refuse(({ name }) => name === surveyLease(head.id));
  return goOn(workspace, head, options);
}

/** The same with a survey that is at hand. */
export async function goOn(
  workspace: Workspace,
  head: SurveyHead,
  options: ResumeOptions,
): Promise<SurveyResult> {
  if (head.finishedAt !== null)
    throw new UsageError(`${head.label} is complete: there is nothing to resume`, {
      hint: 'name another one with --survey, or survey again',
    });
  const plan = workspace.surveys.plan(head.id);
  const scope = plan.scope as unknown as Scope;
  const open = await openStarts(plan.given, options, plan.hosts);
  return workOn(workspace, open, { ...options, views: head.views, scope }, () => {
    const leftover = workspace.pages.leftover(head.id);
    const within = [...plan.hosts, ...leftover.startsReached];
    return {
      head,
      frontier: new Frontier(within, scope, leftover),
      visited: leftover.visited,
    };
  });
}
