import pLimit from 'p-limit';
import { SurveyBrowser } from '../../browser/visit/survey-browser.js';
import { missingImages } from '../../core/survey/missing-images.js';
import { groupPages } from '../../core/survey/page-groups.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { needsOfPlacements } from '../../core/waste/placement-needs.js';
import type { Frontier } from '../../crawl/frontier.js';
import { Pacer } from '../../crawl/pacer.js';
import { Robots, robotsLimit } from '../../crawl/robots.js';
import type { Lease } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import { TextThread } from '../../texts/text-thread.js';
import { noProgress, noTrace } from '../progress.js';
import type { Progress } from '../progress.js';
import { crawl } from './crawl.js';
import type { EncodeAhead } from './encode-ahead.js';
import { encodeSurvey } from './encode-survey.js';
import { picturesOfSurvey } from './survey-pictures.js';
import { fetcher } from './fetcher.js';
import { bodyKeeper } from './keep-body.js';
import { examineFonts } from './font-work.js';
import type { OpenStarts } from './starts.js';
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
  options: WorkOptions,
  begin: (robots: Robots) => BegunSurvey | Promise<BegunSurvey>,
): Promise<SurveyResult> {
  const { signal, onProgress: tell = noProgress, onTrace = noTrace } = options;
  const { surveys, pages } = workspace;
  let lease: Lease | undefined;
  workspace.bodies.clearDrafts();
  const thread = new TextThread();
  const texts = new TextWork(workspace, thread, options.noBodies ?? false);
  try {
    const browser = await SurveyBrowser.open({
      views: options.views,
      tabs: Math.min(options.tabs, options.scope.pages),
      keepBody: bodyKeeper(workspace, options.noBodies ?? false, texts),
      keepText: texts.keep,
      reach: open.reach,
      onNotice: options.onNotice,
      memory: options.memory,
      limits: options.limits,
      userAgent: options.userAgent,
      accesses: options.accesses,
      browserState: options.browserState,
      anyCertificate: options.anyCertificate,
      pictures: !options.noBodies && !options.noPictures,
      onTrace,
    });
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const robots = new Robots(fetcher(options, open.reach, robotsLimit));
      const { head, frontier, visited } = await begin(robots);
      lease = workspace.leases.take(`survey-${head.id}`);
      const refusal = async (url: string) =>
        options.ignoreRobots ? undefined : robots.refusal(url);
      const fetch = fetcher(options, open.reach, maxNamingBytes);
      const naming = new NamingFiles({ fetch, refusal, onTrace });
      const encodes = !options.noBodies && !options.noEncodes;
      const worst = new WorstImages();
      const ahead = encodes ? await encodeAhead(workspace, options, worst) : undefined;
      const onProgress = (progress: Progress) => tell({ ...progress, worst: worst.top });
      await crawl(frontier, browser.visitors, {
        refusal,
        keep: (record, found) => {
          pages.add(head.id, record, found);
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
      void browser.close();
      const underWay = ahead?.end();
      pages.setGroups(head.id, groupPages(pages.sketches(head.id), options.groups));
      if (!signal?.aborted && encodes) {
        const facts = pages.read(head);
        const needs = needsOfPlacements(facts, options.policy);
        const onEncoded = worst.add.bind(worst);
        await encodeSurvey(workspace, facts, options.policy, needs, {
          signal,
          onProgress,
          onEncoded,
          underWay,
        });
        await picturesOfSurvey(workspace, facts, options);
      }
      await ahead?.done();
      await texts.done();
      await examineFonts(workspace, head.id, thread, signal);
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
    await thread.close();
    await open.close();
    lease?.release();
  }
}

async function encodeAhead(
  workspace: Workspace,
  { views, policy }: Pick<WorkOptions, 'views' | 'policy'>,
  worst: WorstImages,
): Promise<EncodeAhead> {
  // Whoever makes no encodes is spared the time that the encoders take to load.
  const { EncodeAhead } = await import('./encode-ahead.js');
  return new EncodeAhead(workspace, views, policy, worst);
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
