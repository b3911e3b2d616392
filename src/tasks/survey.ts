import type { KeepBody } from '../browser/bodies.js';
import type { HostMap } from '../browser/host-map.js';
import { SurveyBrowser } from '../browser/survey-browser.js';
import type { VisitLimits } from '../browser/visit.js';
import { readAddressList } from '../crawl/address-list.js';
import { fetchFile } from '../crawl/fetch-file.js';
import type { FetchedFile } from '../crawl/fetch-file.js';
import { Frontier } from '../crawl/frontier.js';
import type { Scope } from '../crawl/frontier.js';
import { Pacer } from '../crawl/pacer.js';
import { Robots, robotName, robotsLimit } from '../crawl/robots.js';
import { maxSitemapBytes } from '../crawl/sitemap.js';
import { accessHeaders, splitCredentials } from '../core/address/access.js';
import type { Access } from '../core/address/access.js';
import { UsageError } from '../core/base/errors.js';
import { missingImages } from '../core/survey/missing-images.js';
import type { MissingImage } from '../core/survey/missing-images.js';
import { groupPages } from '../core/survey/page-groups.js';
import type { NamedGroup } from '../core/survey/page-groups.js';
import { needsOfPlacements } from '../core/waste/placement-needs.js';
import type { Policy } from '../core/policy/policy.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../core/survey/survey.js';
import type { View } from '../core/visitors/view.js';
import { readImageFacts } from '../images/facts.js';
import { contentHashOf } from '../images/hash.js';
import type { Workspace } from '../store/workspace.js';
import { crawl } from './crawl.js';
import type { EncodeAhead } from './encode-ahead.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { readSitemaps } from './read-sitemaps.js';
import { openStarts } from './starts.js';
import type { OpenStarts } from './starts.js';
import { encodeSurvey } from './encode-survey.js';

export interface SurveyOptions extends TaskOptions {
  readonly label?: string | undefined;
  readonly views: readonly View[];
  /** Which pages are visited. */
  readonly scope: Scope;
  /** File that names pages, with their visits where they are known. */
  readonly list?: string | undefined;
  /** Sitemaps: addresses, files, or `robots` for those that robots.txt names. */
  readonly sitemaps?: readonly string[];
  /** Visits what a robots.txt forbids, too. */
  readonly ignoreRobots?: boolean;
  /** How the tool names itself to servers; left out, the browser's own name with the tool's behind it. */
  readonly userAgent?: string | undefined;
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  /** Milliseconds between the beginnings of two page loads from one host. */
  readonly pace?: number;
  /** How often a page is asked for again when it failed and may not the next time. */
  readonly retries?: number;
  readonly hosts?: HostMap;
  /** What is shown to hosts so that they let the tool in; never kept. */
  readonly accesses?: readonly Access[];
  /** File with cookies and local storage that a browser saved; never kept. */
  readonly browserState?: string | undefined;
  /** Accepts certificates that do not verify. */
  readonly anyCertificate?: boolean;
  /** Page groups that a person has named. */
  readonly groups?: readonly NamedGroup[];
  /** Leaves bodies of images out of the workspace, and with them the encodes. */
  readonly noBodies?: boolean;
  /** Leaves the encodes to whoever asks for them first. */
  readonly noEncodes?: boolean;
  readonly policy: Policy;
  readonly limits?: VisitLimits;
}

/** A survey that was broken off, to be taken up again as it was begun. */
export interface ResumeOptions extends Omit<
  SurveyOptions,
  'views' | 'scope' | 'label' | 'list' | 'sitemaps'
> {
  /** Label of the survey; the newest when it is left out. */
  readonly survey?: string | undefined;
}

export interface SurveyResult {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  readonly missing: readonly MissingImage[];
  /** Whether it was stopped before it was through. */
  readonly interrupted: boolean;
}

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
  const open = await openStarts(given, options.hosts ?? {});
  return work(workspace, open, { ...options, accesses }, async (robots) => {
    const seeds = [...open.urls.map((url) => ({ url, visits: null })), ...listed];
    const within = seeds.map(({ url }) => url);
    const sitemaps = options.sitemaps ?? [];
    const named = await readSitemaps(
      sitemaps,
      within,
      robots,
      fetcher({ ...options, accesses }, open.hosts),
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
    );
    workspace.pages.addFound(head.id, { due: [], skipped: named.problems });
    return { head, frontier, visited: 0 };
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
    throw new UsageError(`${head.label} is complete: there is nothing to resume`, {
      hint: 'name another one with --survey, or survey again',
    });
  const plan = workspace.surveys.plan(head.id);
  const scope = plan.scope as unknown as Scope;
  const open = await openStarts(plan.given, options.hosts ?? {});
  return work(workspace, open, { ...options, views: head.views, scope }, () => {
    const leftover = workspace.pages.leftover(head.id);
    const within = [...plan.hosts, ...leftover.startsReached];
    return {
      head,
      frontier: new Frontier(within, scope, leftover),
      visited: leftover.visited,
    };
  });
}

interface Begun {
  readonly head: SurveyHead;
  readonly frontier: Frontier;
  readonly visited: number;
}

type WorkOptions = Omit<SurveyOptions, 'label' | 'list' | 'sitemaps'>;

/** @param begin is called when the browser is there: a survey that cannot be made leaves no trace */
async function work(
  workspace: Workspace,
  open: OpenStarts,
  options: WorkOptions,
  begin: (robots: Robots) => Begun | Promise<Begun>,
): Promise<SurveyResult> {
  const { signal, onProgress = noProgress } = options;
  const { surveys, pages } = workspace;
  try {
    const browser = await SurveyBrowser.open({
      views: options.views,
      tabs: Math.min(options.tabs, options.scope.pages),
      keepBody: bodyKeeper(workspace, options.noBodies ?? false),
      hosts: open.hosts,
      limits: options.limits,
      userAgent: options.userAgent,
      accesses: options.accesses,
      browserState: options.browserState,
      anyCertificate: options.anyCertificate,
    });
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const robots = new Robots(fetcher(options, open.hosts, robotsLimit));
      const { head, frontier, visited } = await begin(robots);
      const encodes = !options.noBodies && !options.noEncodes;
      const ahead = encodes ? await encodeAhead(workspace, options) : undefined;
      await crawl(frontier, browser.visitors, {
        refusal: async (url) => (options.ignoreRobots ? undefined : robots.refusal(url)),
        keep: (record, found) => {
          pages.add(head.id, record, found);
          ahead?.note(record);
        },
        keepFound: (found) => pages.addFound(head.id, found),
        pacer: new Pacer(options.pace ?? 0),
        retries: options.retries ?? 2,
        signal,
        onProgress,
        visited,
      });
      await ahead?.end();
      pages.setGroups(head.id, groupPages(pages.sketches(head.id), options.groups));
      if (!signal?.aborted && encodes) {
        const facts = pages.read(head);
        const needs = needsOfPlacements(facts, options.policy);
        await encodeSurvey(workspace, facts, options.policy, needs, options);
      }
      if (!signal?.aborted) {
        surveys.finish(head.id, new Date().toISOString());
        pages.seal(head.id);
      }
      return resultOf(workspace, head.id, signal?.aborted ?? false);
    } finally {
      signal?.removeEventListener('abort', stop);
      await browser.close();
    }
  } finally {
    await open.close();
  }
}

async function encodeAhead(
  workspace: Workspace,
  { views, policy }: Pick<WorkOptions, 'views' | 'policy'>,
): Promise<EncodeAhead> {
  // Whoever makes no encodes is spared the time that the encoders take to load.
  const { EncodeAhead } = await import('./encode-ahead.js');
  return new EncodeAhead(workspace, views, policy);
}

/** Keeps a body and the facts of it, each content once, and answers with its content hash. */
function bodyKeeper(workspace: Workspace, noBodies: boolean): KeepBody {
  return async (body, declaredType) => {
    const contentHash = contentHashOf(body);
    if (!noBodies) await workspace.bodies.keep(contentHash, body);
    if (!workspace.images.has(contentHash))
      workspace.images.add(await readImageFacts(body, declaredType));
    return contentHash;
  };
}

/** Milliseconds that a server has to answer with its robots.txt or a sitemap. */
const fileTimeout = 15_000;

/** Fetches files as the browser of this survey would. */
function fetcher(
  { userAgent, accesses = [], anyCertificate }: WorkOptions,
  hosts: HostMap,
  limit = maxSitemapBytes,
): (url: string) => Promise<FetchedFile> {
  return (url) =>
    fetchFile(url, {
      hosts,
      userAgent: userAgent ?? robotName,
      headersFor: (address) => accessHeaders(accesses, address),
      anyCertificate,
      limit,
      timeout: fileTimeout,
    });
}

function resultOf(workspace: Workspace, id: number, interrupted: boolean): SurveyResult {
  const survey = workspace.surveys.get(id);
  return {
    survey,
    pages: workspace.pages.list(id),
    skipped: workspace.pages.skipped(id),
    missing: missingImages(workspace.pages.read(survey).responses),
    interrupted,
  };
}
