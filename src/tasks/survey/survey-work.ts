import pLimit from 'p-limit';
import { SurveyBrowser } from '../../browser/visit/survey-browser.js';
import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import { missingImages } from '../../core/survey/missing-images.js';
import { groupPages } from '../../core/survey/page-groups.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import type { Frontier } from '../../crawl/frontier.js';
import { Pacer } from '../../crawl/pacer.js';
import { Robots, robotsLimit } from '../../crawl/robots.js';
import { surveyLease } from '../../store/leases.js';
import type { Lease } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import { TextThread } from '../../texts/text-thread.js';
import { noProgress, noTrace } from '../progress.js';
import type { Progress } from '../progress.js';
import { crawl } from './crawl.js';
import type { EncodeHelp } from './encode-file.js';
import type { EncodeAhead } from './encode-ahead.js';
import { judgeSurvey } from '../sums/judge-survey.js';
import { sumSurvey } from '../sums/sum-survey.js';
import { SurveyParts } from '../sums/survey-parts.js';
import { fetcher } from './fetcher.js';
import type { FirstEncodes } from './first-encodes.js';
import { bodyKeeper, loadImageReader } from './keep-body.js';
import { KeepPages } from './keep-pages.js';
import { examineFonts } from './font-work.js';
import type { OpenStarts } from './starts.js';
import type { CrewWork } from './crew-work.js';
import type { SurveyResult, WorkOptions } from './survey-options.js';
import { maxNamingBytes, NamingFiles } from './naming-files.js';
import { TextWork } from './text-work.js';
import { WorstImages } from './worst-images.js';

/** A survey that has been started or resumed. */
export interface BegunSurvey {
  readonly head: SurveyHead;
  readonly frontier: Frontier;
  readonly visited: number;
}

/**
 * Crawls, encodes and closes a survey.
 *
 * @param begin is called when the browser is there: a survey that cannot be made leaves no trace
 */
export async function workOn(
  workspace: Workspace,
  open: OpenStarts,
  given: WorkOptions,
  begin: (robots: Robots) => BegunSurvey | Promise<BegunSurvey>,
): Promise<SurveyResult> {
  // A folder is served by this program, on this machine.
  const options = { ...given, crew: open.served.size === 0 ? given.crew : undefined };
  const { signal, onProgress: tell = noProgress, onTrace = noTrace } = options;
  const { surveys, pages } = workspace;
  let lease: Lease | undefined;
  let crew: CrewWork | undefined;
  const thread = new TextThread();
  try {
    workspace.bodies.clearDrafts();
    const texts = new TextWork(workspace, thread, options.noBodies ?? false);
    const browser = options.crew?.doesAll
      ? undefined
      : await openBrowser(workspace, open, options, texts);
    const stop = () => void browser?.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const robots = new Robots(fetcher(options, open.reach, robotsLimit));
      const { head, frontier, visited } = await begin(robots);
      const leading = workspace.leases.take(surveyLease(head.id));
      lease = leading;
      const keeping = new KeepPages(pages, head.id, () => leading.confirm());
      crew = options.crew?.begin(head, options);
      const refusal = async (url: string) =>
        options.ignoreRobots ? undefined : robots.refusal(url);
      const fetch = fetcher(options, open.reach, maxNamingBytes);
      const naming = new NamingFiles({ fetch, refusal, onTrace });
      const encodes = !options.noBodies && !options.noEncodes;
      const worst = new WorstImages();
      // A crew is several machines: each of them searches as soon as it is free.
      const firsts = encodes && !crew ? await firstEncodes(workspace, options) : undefined;
      const help = { crew, firsts };
      const ahead = encodes ? await encodeAhead(workspace, options, worst, help) : undefined;
      const onProgress = (progress: Progress) => tell({ ...progress, worst: worst.top });
      const own = (browser?.visitors ?? []).map((visitor) => inTurn(visitor, options));
      const visitors = [...own, ...(crew?.visitors(options.views) ?? [])];
      await crawl(frontier, visitors, {
        refusal,
        keep: async (record, found) => {
          await keeping.keep({ record, found });
          worst.note(record);
          ahead?.note(record);
        },
        onVisit: (url, visit) => ahead?.noteVisit(url, visit),
        namedFirst: (page, files) => naming.namedFirst(page, files),
        keepFound: (found) => pages.addFound(head.id, found),
        pacer: new Pacer(options.pace ?? 0),
        limit: pLimit(options.tabs),
        retries: options.retries ?? 2,
        signal,
        onProgress,
        onTrace,
        visited,
      });
      // The processors are the encoders' from here on.
      void browser?.close();
      const underWay = ahead?.end();
      pages.setGroups(head.id, groupPages(pages.sketches(head.id), options.groups));
      if (!signal?.aborted) pages.seal(head.id);
      const fonts = examineFonts(workspace, head.id, thread, signal);
      // Awaited below, and told there if it fails.
      fonts.catch(() => {});
      const { groups, onFirstRanking } = options;
      const common = { signal, onProgress, ...help, groups };
      const judged =
        !signal?.aborted && encodes
          ? await judgeSurvey(workspace, head, options.policy, {
              ...common,
              ...{ underWay, onFirstRanking, onEncoded: worst.add.bind(worst) },
            })
          : undefined;
      await ahead?.done();
      await texts.done();
      await fonts;
      // What is read at once is ranked at once.
      if (judged && judged.parts.count > 1 && !signal?.aborted)
        await sumSurvey(workspace, judged, options.policy, common);
      if (!signal?.aborted) {
        leading.confirm();
        surveys.finish(head.id, workspace.now());
      }
      return resultOf(workspace, head.id, options, signal?.aborted ?? false);
    } finally {
      signal?.removeEventListener('abort', stop);
      await Promise.all([browser?.close(), thread.close()]);
    }
  } finally {
    await crew?.close(signal?.aborted ?? false);
    await thread.close();
    await open.close();
    lease?.release();
  }
}

/** A visitor that keeps a pace together with the workers of a crew. */
function inTurn(visitor: PageVisitor, { crew, pace = 0, signal }: WorkOptions): PageVisitor {
  if (!crew || pace === 0) return visitor;
  return {
    ...visitor,
    views: visitor.views.map((view) => ({
      visit: async (url, manner) => {
        await crew.turn(url, pace, signal);
        return view.visit(url, manner);
      },
    })),
  };
}

/** A browser with the settings of a survey, which keeps what it is sent in the workspace. */
export function openBrowser(
  workspace: Workspace,
  open: Pick<OpenStarts, 'reach'>,
  options: WorkOptions,
  texts: TextWork,
): Promise<SurveyBrowser> {
  // The minifiers load in their thread while the driver loads in this one, and this one is free while the browser starts.
  texts.prepare();
  const opening = SurveyBrowser.open({
    views: options.views,
    tabs: Math.min(options.tabs, options.scope.pages),
    keepBody: bodyKeeper(workspace, options.noBodies ?? false, texts),
    keepText: texts.keep,
    rulesOf: texts.rulesOf,
    reach: open.reach,
    onNotice: options.onNotice,
    memory: options.memory,
    limits: options.limits,
    userAgent: options.userAgent,
    accesses: options.accesses,
    browserState: options.browserState,
    anyCertificate: options.anyCertificate,
    pictures: !options.noBodies && !options.noPictures,
    onTrace: options.onTrace ?? noTrace,
  });
  // What does not load is told by the first image.
  loadImageReader().catch(() => {});
  return opening;
}

async function encodeAhead(
  workspace: Workspace,
  { views, policy }: Pick<WorkOptions, 'views' | 'policy'>,
  worst: WorstImages,
  help: EncodeHelp,
): Promise<EncodeAhead> {
  // Whoever makes no encodes is spared the time that the encoders take to load.
  const { EncodeAhead } = await import('./encode-ahead.js');
  return new EncodeAhead(workspace, views, policy, worst, help);
}

async function firstEncodes(
  workspace: Workspace,
  { policy }: Pick<WorkOptions, 'policy'>,
): Promise<FirstEncodes> {
  const { FirstEncodes } = await import('./first-encodes.js');
  return new FirstEncodes(workspace, policy);
}

function resultOf(
  workspace: Workspace,
  id: number,
  { groups }: Pick<WorkOptions, 'groups'>,
  interrupted: boolean,
): SurveyResult {
  const survey = workspace.surveys.get(id);
  const { pages } = workspace;
  return {
    survey,
    pages: pages.list(id),
    skipped: pages.skipped(id),
    missing: missingImages(
      survey.finishedAt === null
        ? pages.read(survey).responses
        : new SurveyParts(workspace, survey, groups).responses(),
    ),
    interrupted,
  };
}
