import { splitCredentials } from '../../core/address/access.js';
import { UsageError } from '../../core/base/errors.js';
import { readAddressList } from '../../crawl/address-list.js';
import { Frontier } from '../../crawl/frontier.js';
import type { Scope } from '../../crawl/frontier.js';
import type { Workspace } from '../../store/workspace.js';
import { fetcher } from './fetcher.js';
import { readSitemaps, vouchedFor } from './read-sitemaps.js';
import { openStarts } from './starts.js';
import type { ResumeOptions, SurveyOptions, SurveyResult } from './survey-options.js';
import { workOn } from './survey-work.js';

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
  const listed = options.list === undefined ? [] : readAddressList(options.list);
  const split = starts.map(splitCredentials);
  const given = split.map(({ address }) => address);
  const accesses = [...(options.accesses ?? []), ...split.flatMap(({ access }) => access ?? [])];
  const open = await openStarts(given, options, [
    ...listed.map(({ url }) => url),
    ...vouchedFor(options.sitemaps ?? []),
  ]);
  return workOn(workspace, open, { ...options, accesses }, async (robots) => {
    const seeds = [...open.urls.map((url) => ({ url, visits: null })), ...listed];
    const within = seeds.map(({ url }) => url);
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
    frontier.begin(seeds);
    frontier.add(named.pages, 0);
    const hosts = [...new Set(within.map((url) => `${new URL(url).origin}/`))];
    const plan = { given, hosts, scope: { ...options.scope } };
    const now = new Date().toISOString();
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
  });
}

/**
 * Goes on with a survey that was interrupted, by whatever means: pages that are kept are not loaded
 * again, and none that was found is lost.
 *
 * @throws NotFoundError when there is no such survey; UsageError when it had come to its end.
 */
export async function resumeSurvey(
  workspace: Workspace,
  options: ResumeOptions,
): Promise<SurveyResult> {
  const head = workspace.surveys.find(options.survey);
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
