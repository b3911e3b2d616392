import type { KeepBody } from '../browser/bodies.js';
import type { HostMap } from '../browser/launch.js';
import { SurveyBrowser } from '../browser/survey-browser.js';
import { defaultVisitLimits } from '../browser/visit.js';
import type { VisitLimits } from '../browser/visit.js';
import { Frontier } from '../crawl/frontier.js';
import type { Scope } from '../crawl/frontier.js';
import { fetchText } from '../crawl/fetch-text.js';
import { Robots, robotName, robotsLimit } from '../crawl/robots.js';
import { UsageError } from '../core/errors.js';
import type { Policy } from '../core/policy.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../core/survey.js';
import type { View } from '../core/view.js';
import { readImageFacts } from '../images/facts.js';
import type { Workspace } from '../store/workspace.js';
import { crawl } from './crawl.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { openStarts } from './starts.js';
import type { OpenStarts } from './starts.js';
import { weigh } from './weigh.js';

export interface SurveyOptions extends TaskOptions {
  readonly label?: string | undefined;
  readonly views: readonly View[];
  /** Which pages are visited. */
  readonly scope: Scope;
  /** Visits what a robots.txt forbids, too. */
  readonly ignoreRobots?: boolean;
  /** How the tool names itself to servers; left out, the browser's own name with the tool's behind it. */
  readonly userAgent?: string | undefined;
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  readonly hosts?: HostMap;
  readonly policy: Policy;
  readonly limits?: VisitLimits;
}

/** A survey that was broken off, to be taken up again as it was begun. */
export interface ResumeOptions extends Omit<SurveyOptions, 'views' | 'scope' | 'label'> {
  /** Label of the survey; the newest when it is left out. */
  readonly survey?: string | undefined;
}

export interface SurveyResult {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  /** Whether it was stopped before it was through. */
  readonly interrupted: boolean;
}

/**
 * Crawls from the starts, measures every image on every page in every view, encodes each at its need,
 * and keeps it all in the workspace, page by page. What goes wrong with a page is a row of the result.
 *
 * @throws BrowserError when no browser can be started; UsageError, NotFoundError for a wrong start.
 */
export async function survey(
  workspace: Workspace,
  starts: readonly string[],
  options: SurveyOptions,
): Promise<SurveyResult> {
  const open = await openStarts(starts, options.hosts ?? {});
  return work(workspace, open, options, options.scope, () => {
    const plan = { given: starts, scope: { ...options.scope } };
    const now = new Date().toISOString();
    const head = workspace.surveys.begin(options.label, now, open.urls, options.views, plan);
    return { head, frontier: new Frontier(open.urls, options.scope), visited: 0 };
  });
}

/**
 * Goes on with a survey that was broken off, by whatever means: pages that are kept are not loaded
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
    throw new UsageError(`${head.label} came to its end: there is nothing to resume`, {
      hint: 'name another one with --survey, or survey again',
    });
  const plan = workspace.surveys.plan(head.id);
  const scope = plan.scope as unknown as Scope;
  const open = await openStarts(plan.given, options.hosts ?? {});
  return work(workspace, open, { ...options, views: head.views }, scope, () => {
    const leftover = workspace.surveys.leftover(head.id);
    const frontier = new Frontier(open.urls, scope, leftover);
    return { head, frontier, visited: leftover.visited };
  });
}

interface Begun {
  readonly head: SurveyHead;
  readonly frontier: Frontier;
  readonly visited: number;
}

/** @param begin is called when the browser is there: a survey that cannot be made leaves no trace */
async function work(
  workspace: Workspace,
  open: OpenStarts,
  options: Omit<SurveyOptions, 'scope' | 'label'>,
  scope: Scope,
  begin: () => Begun,
): Promise<SurveyResult> {
  const { signal, onProgress = noProgress, limits = defaultVisitLimits } = options;
  const { surveys } = workspace;
  try {
    const browser = await SurveyBrowser.open(
      options.views,
      Math.min(options.tabs, scope.pages),
      bodyKeeper(workspace),
      open.hosts,
      limits,
      options.userAgent,
    );
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const { head, frontier, visited } = begin();
      const robots = robotsFor(open.hosts, options.userAgent);
      await crawl(frontier, browser.visitors, {
        refusal: async (url) => (options.ignoreRobots ? undefined : robots.refusal(url)),
        keep: (record, found) => surveys.addPage(head.id, record, found),
        keepFound: (found) => surveys.addFound(head.id, found),
        signal,
        onProgress,
        visited,
      });
      if (!signal?.aborted) await weigh(workspace, surveys.read(head), options.policy, options);
      if (!signal?.aborted) surveys.finish(head.id, new Date().toISOString());
      return resultOf(workspace, head.id, signal?.aborted ?? false);
    } finally {
      signal?.removeEventListener('abort', stop);
      await browser.close();
    }
  } finally {
    await open.close();
  }
}

/** Keeps a body and the facts of it, and answers with its content hash. */
function bodyKeeper(workspace: Workspace): KeepBody {
  return async (body, declaredType) => {
    const file = await readImageFacts(body, declaredType);
    await workspace.bodies.keep(file.contentHash, body);
    workspace.images.add(file);
    return file.contentHash;
  };
}

/** Milliseconds that a server has to answer with its robots.txt. */
const robotsTimeout = 15_000;

function robotsFor(hosts: HostMap, userAgent: string | undefined): Robots {
  return new Robots((url) =>
    fetchText(url, {
      hosts,
      userAgent: userAgent ?? robotName,
      limit: robotsLimit,
      timeout: robotsTimeout,
    }),
  );
}

function resultOf(workspace: Workspace, id: number, interrupted: boolean): SurveyResult {
  return {
    survey: workspace.surveys.get(id),
    pages: workspace.surveys.pages(id),
    skipped: workspace.surveys.skipped(id),
    interrupted,
  };
}
