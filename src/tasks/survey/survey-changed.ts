import { UsageError } from '../../core/base/errors.js';
import { Frontier } from '../../crawl/frontier.js';
import type { Scope } from '../../crawl/scope.js';
import { Pacer } from '../../crawl/pacer.js';
import type { Workspace } from '../../store/workspace.js';
import type { TakenOver } from '../../output/views/survey.js';
import { noProgress } from '../progress.js';
import { changedPages } from './changed-pages.js';
import { fetcher } from './fetcher.js';
import { keptFiles } from './kept-files.js';
import { readSitemaps } from './read-sitemaps.js';
import { openStarts } from './starts.js';
import type { ChangedOptions, SurveyResult } from './survey-options.js';
import { workOn } from './survey-work.js';

/** The largest file that is compared by its content; a larger one counts as changed. */
const maxBytes = 20_000_000;
/** Questions at the same time, for each tab. */
const questionsPerTab = 3;

/**
 * Surveys a site again and visits only what may have changed since an earlier survey; everything else is taken over from
 * it. Pages that nothing links to any more stay in it until the next full survey, and what third parties send is not asked
 * about.
 *
 * @throws NotFoundError when there is no such survey, or it was thinned out; UsageError when it was interrupted.
 */
export async function surveyChanged(
  workspace: Workspace,
  options: ChangedOptions,
): Promise<SurveyResult> {
  const { since, signal, onProgress = noProgress } = options;
  const { surveys, pages } = workspace;
  const base = surveys.find(since);
  if (base.finishedAt === null)
    throw new UsageError(`${base.label} was interrupted: what changed since then is not known`, {
      hint: 'zealous-lynx survey --resume completes it',
    });
  const plan = surveys.plan(base.id);
  const scope = plan.scope as unknown as Scope;
  const files = keptFiles(workspace, base);
  const open = await openStarts(plan.given, options, plan.hosts);
  let takenOver: TakenOver | undefined;
  const result = await workOn(
    workspace,
    open,
    { ...options, views: base.views, scope },
    async (robots) => {
      const named = await readSitemaps(
        options.sitemaps ?? [],
        plan.hosts,
        robots,
        fetcher(options, open.reach),
      );
      const all = pages.list(base.id);
      const { changed, asked } = await changedPages({
        ...{ pages: all, files, startedAt: base.startedAt, modified: named.modified },
        ask: fetcher(options, open.reach, maxBytes),
        pacer: new Pacer(options.pace ?? 0),
        atOnce: options.tabs * questionsPerTab,
        ...{ onProgress, signal },
      });
      const again = new Set(changed.map(({ url }) => url));
      const same = all.filter(({ url }) => !again.has(url));
      takenOver = { from: base.label, pages: same.length, asked, changed };
      const leftover = pages.leftover(base.id);
      const left = {
        ...leftover,
        reached: same.map(({ finalUrl }) => finalUrl),
        documents: leftover.documents.filter(({ url }) => !again.has(url)),
        due: leftover.found.filter(({ url }) => again.has(url)),
        visited: same.length,
      };
      const within = [...plan.hosts, ...leftover.startsReached];
      const frontier = new Frontier(within, scope, left);
      frontier.add(named.pages, 0);
      const skipped = pages.skipped(base.id);
      const head = surveys.begin(
        options.label,
        workspace.now(),
        base.starts,
        base.views,
        plan,
        (id) => pages.noteFound(id, { due: leftover.found, skipped }),
      );
      const takeOver = pages.takeOver(base.id, head.id);
      for (const { url } of same) takeOver(url, { due: [], skipped: [] });
      return { head, frontier, visited: same.length };
    },
  );
  return { ...result, ...(takenOver && { takenOver }) };
}
