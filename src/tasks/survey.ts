import type { HostMap } from '../browser/launch.js';
import { SurveyBrowser } from '../browser/survey-browser.js';
import type { PageVisitor } from '../browser/survey-browser.js';
import { defaultVisitLimits } from '../browser/visit.js';
import type { Visit, VisitLimits } from '../browser/visit.js';
import { Frontier } from '../crawl/frontier.js';
import type { Due } from '../crawl/frontier.js';
import { isThirdParty } from '../crawl/third-party.js';
import { noBytes, requestTypes, totalBytes } from '../core/request.js';
import type { BytesByType } from '../core/request.js';
import type { Policy } from '../core/policy.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../core/survey.js';
import type { View } from '../core/view.js';
import { readImageFacts } from '../images/facts.js';
import type { PageRecord } from '../store/surveys.js';
import type { Workspace } from '../store/workspace.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { openStarts } from './starts.js';
import { weigh } from './weigh.js';

export interface SurveyOptions extends TaskOptions {
  readonly label?: string | undefined;
  readonly views: readonly View[];
  /** At most so many pages. */
  readonly pages: number;
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  readonly hosts?: HostMap;
  readonly policy: Policy;
  readonly limits?: VisitLimits;
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
  const { signal, onProgress = noProgress, hosts = {}, limits = defaultVisitLimits } = options;
  const open = await openStarts(starts, hosts);
  const keepBody = async (body: Buffer, declaredType: string) => {
    const file = await readImageFacts(body, declaredType);
    await workspace.bodies.keep(file.contentHash, body);
    workspace.images.add(file);
    return file.contentHash;
  };
  try {
    const browser = await SurveyBrowser.open(
      options.views,
      options.tabs,
      keepBody,
      open.hosts,
      limits,
    );
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const head = workspace.surveys.begin(
        options.label,
        new Date().toISOString(),
        open.urls,
        options.views,
      );
      const frontier = new Frontier(open.urls, options.pages);
      const skipped = await crawl(frontier, browser.visitors, {
        signal,
        onProgress,
        keep: (record) => workspace.surveys.addPage(head.id, record),
      });
      workspace.surveys.addSkipped(head.id, skipped);
      if (!signal?.aborted) {
        await weigh(workspace, workspace.surveys.read(head), options.policy, options);
      }
      if (!signal?.aborted) workspace.surveys.finish(head.id, new Date().toISOString());
      return resultOf(workspace, head.label, signal?.aborted ?? false);
    } finally {
      signal?.removeEventListener('abort', stop);
      await browser.close();
    }
  } finally {
    await open.close();
  }
}

interface CrawlOptions {
  readonly signal: AbortSignal | undefined;
  readonly onProgress: NonNullable<TaskOptions['onProgress']>;
  readonly keep: (record: PageRecord) => void;
}

/** Visits what the frontier hands out, with all visitors at once; returns what was passed over. */
async function crawl(
  frontier: Frontier,
  visitors: readonly PageVisitor[],
  { signal, onProgress, keep }: CrawlOptions,
): Promise<SkippedAddress[]> {
  const refused: SkippedAddress[] = [];
  const wake = new Set<() => void>();
  let busy = 0;
  let done = 0;
  const take = async (visitor: PageVisitor, due: Due) => {
    onProgress({ stage: 'pages', done, total: done + busy + frontier.waiting, doing: due.url });
    const visits = await visitor.visit(due.url);
    if (signal?.aborted) return;
    const outcome = judge(due, visits, frontier);
    if (typeof outcome === 'string') refused.push({ url: due.url, reason: outcome });
    else keep(outcome);
    for (const { links } of visits) frontier.add(links, due.depth + 1);
    done++;
  };
  const work = async (visitor: PageVisitor) => {
    while (!signal?.aborted) {
      const due = frontier.next();
      if (due) {
        busy++;
        await take(visitor, due).finally(() => busy--);
        for (const resume of wake) resume();
        wake.clear();
      } else if (busy === 0) return;
      else await new Promise<void>((resume) => wake.add(resume));
    }
  };
  await Promise.all(visitors.map(work));
  onProgress({ stage: 'pages', done, total: done, doing: '' });
  return [...refused, ...frontier.skipped];
}

/** A page's record, or in words why the address is not a page of this survey. */
function judge(due: Due, visits: readonly Visit[], frontier: Frontier): PageRecord | string {
  const good = visits.find(({ error }) => error === null);
  const [first] = visits;
  const finalUrl = (good ?? first)?.finalUrl ?? due.url;
  if (good && finalUrl !== due.url) {
    if (!frontier.inScope(finalUrl)) return `leads to another site: ${finalUrl}`;
    if (!frontier.reached(finalUrl)) return `leads to ${finalUrl}, which is visited anyway`;
  }
  const problems = visits.flatMap(({ view, error, warning }) => {
    const words = error ?? warning;
    return words === null ? [] : { view, words };
  });
  return {
    page: {
      url: due.url,
      finalUrl,
      status: (good ?? first)?.status ?? null,
      depth: due.depth,
      group: null,
      error: problemWords(problems, visits.length),
      bytesByType: heaviest(visits),
    },
    placements: visits.flatMap(({ view, placements }) =>
      placements.map((placement) => ({ ...placement, view })),
    ),
    curves: visits.flatMap(({ curves }) => curves),
    responses: visits.flatMap(({ view, images }) =>
      images.map((image) => ({ ...image, view, thirdParty: isThirdParty(image.url, finalUrl) })),
    ),
  };
}

/** The problems of a page's visits, each once, with its view where it is not the same in all. */
function problemWords(
  problems: readonly { view: string; words: string }[],
  visits: number,
): string | null {
  if (problems.length === 0) return null;
  const different = new Set(problems.map(({ words }) => words));
  if (different.size === 1 && problems.length === visits) return problems[0]!.words;
  return problems.map(({ view, words }) => `${view}: ${words}`).join('; ');
}

function heaviest(visits: readonly Visit[]): BytesByType {
  return visits.reduce<BytesByType>(
    (most, { bytesByType }) => (totalBytes(bytesByType) > totalBytes(most) ? bytesByType : most),
    noBytes(),
  );
}

function resultOf(workspace: Workspace, label: string, interrupted: boolean): SurveyResult {
  const head = workspace.surveys.find(label);
  return {
    survey: head,
    pages: workspace.surveys.pages(head.id),
    skipped: workspace.surveys.skipped(head.id),
    interrupted,
  };
}

/** Bytes on the wire of several pages together, each in its heaviest view. */
export function weightOf(pages: readonly SurveyedPage[]): BytesByType {
  const sum = noBytes();
  for (const { bytesByType } of pages)
    for (const type of requestTypes) sum[type] += bytesByType[type];
  return sum;
}
