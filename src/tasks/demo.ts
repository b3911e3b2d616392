import { serveArchive } from '../../demo/archive/archive.js';
import type { DemoSite } from '../../demo/server.js';
import { readDeployment } from '../../demo/deploy.js';
import { builtInNetworks } from '../core/visitors/network.js';
import { defaultPolicy } from '../core/policy/policy.js';
import type { SiteFinding } from '../core/findings/site/index.js';
import { chooseViews, defaultViews } from '../core/visitors/view.js';
import { Reach } from '../reach/reach.js';
import type { Workspace } from '../store/workspace.js';
import { clock } from './clock/clock.js';
import type { ClockResult } from './clock/clock.js';
import { compare } from './clock/compare.js';
import type { ComparedPage } from './clock/compare.js';
import { serveDemoSite } from './demo-site.js';
import type { TaskOptions } from './progress.js';
import { rank } from './rank.js';
import type { RankResult } from './rank.js';
import { siteFindings } from './site-findings.js';
import type { WrittenReport } from '../output/views/written-report.js';
import { refit } from './refit/refit.js';
import type { RefitResult } from './refit/write-refit.js';
import { makeReport } from './report/report.js';
import { writeReport } from './report/write-report.js';
import { trial } from './trial/trial.js';
import type { TriedPage } from './trial/trial.js';
import { survey } from './survey/survey.js';
import type { SurveyResult } from './survey/survey.js';

export { serveArchive };

export interface DemoOptions extends TaskOptions {
  readonly signal: AbortSignal;
  /** Folder that keeps the site's pictures between calls. */
  readonly cache: string;
  /** Folder that the right-sized files are written to, and file of the report. */
  readonly out: string;
  readonly report: string;
  readonly creator: { readonly name: string; readonly version: string };
}

/** The steps of the demo, each shown as soon as it is there. */
export interface DemoSteps {
  surveyed(result: SurveyResult): void;
  ranked(result: RankResult): void;
  /** Told of the findings on what is no image: of the festival's site, then of its archive. */
  found(result: RankResult, site: readonly SiteFinding[]): void;
  refitted(result: RefitResult): void;
  tried(pages: readonly TriedPage[]): void;
  clocked(result: ClockResult): void;
  compared(pages: readonly ComparedPage[]): void;
  reported(report: WrittenReport): void;
}

/** Line, view and number of loads that the demo clocks with. */
const demoNetwork = builtInNetworks.find(({ name }) => name === 'fast-mobile')!;
const demoRuns = 6;

/** The views that the demo surveys: two of four, which takes half as long. */
const demoViews = chooseViews(defaultViews, ['phone', 'laptop']);

/**
 * The whole story on the demo site: survey, rank, refit, and a trial of the refit; the site with the refit deployed as its
 * papers say; a session of each, and the two compared; a report of it all.
 *
 * @returns whether it came to its end; it does not when it was stopped.
 */
export async function demo(
  workspace: Workspace,
  options: DemoOptions,
  steps: DemoSteps,
): Promise<boolean> {
  const { signal, out, cache, creator } = options;
  const task = { signal, ...(options.onProgress && { onProgress: options.onProgress }) };
  const clockSite = async (site: DemoSite, label: string) => {
    const { results } = await clock(workspace, [site.start], {
      noInteractive: true,
      policy: defaultPolicy,
      ...task,
      label,
      creator,
      runs: demoRuns,
      network: demoNetwork,
      cpuFactor: 1,
      view: demoViews[0]!,
      hosts: site.hosts,
    });
    return results[0];
  };
  // First, so that the festival's own survey is the newest afterwards.
  const archived = await surveyArchive(workspace, task);
  if (signal.aborted) return false;
  const before = await serveDemoSite(cache, 0, task);
  try {
    const surveyed = await survey(workspace, [before.start], {
      ...task,
      views: demoViews,
      policy: defaultPolicy,
      scope: { pages: 50 },
      tabs: 2,
      hosts: before.hosts,
      label: 'brindle-bay',
    });
    if (signal.aborted) return false;
    const surveyLabel = surveyed.survey.label;
    steps.surveyed(surveyed);
    const ranked = await rank(workspace, surveyLabel, defaultPolicy, task);
    steps.ranked(ranked);
    for (const result of [ranked, archived]) steps.found(result, siteFindings(workspace, result));
    const session = await clockSite(before, 'before');
    if (signal.aborted || !session) return false;
    steps.clocked(session);
    const reach = await Reach.of({ starts: [before.start], hosts: before.hosts });
    const pages = { reach: () => Promise.resolve(reach), accesses: [] };
    const refitted = await refit(workspace, surveyLabel, out, defaultPolicy, { ...task, pages });
    if (signal.aborted) return false;
    steps.refitted(refitted);
    const tried = await trial(workspace, [before.start], {
      ...{ ...task, creator, label: 'tried', refit: out, hosts: before.hosts },
      // The deployment is no other server: it compresses what the old one did.
      ...{ runs: demoRuns, mostRuns: demoRuns, network: demoNetwork, cpuFactor: 1 },
      ...{ view: demoViews[0]!, warm: false, each: false, film: true },
      ...{ fixes: [], without: ['compress'], withoutHosts: [] },
    });
    if (signal.aborted) return false;
    steps.tried(tried.pages);
  } finally {
    await before.close();
  }
  const deployment = await readDeployment(out, before.start);
  const after = await serveDemoSite(cache, 0, task, deployment);
  try {
    const session = await clockSite(after, 'after');
    if (signal.aborted || !session) return false;
    steps.clocked(session);
  } finally {
    await after.close();
  }
  steps.compared(await compare(() => workspace, 'before', 'after', false, 'tried'));
  const { html, ...made } = await makeReport(workspace, defaultPolicy, {
    ...{ ...task, survey: 'brindle-bay', refit: out, program: creator },
    title: 'The Brindle Bay Kite Festival: images and loading',
  });
  if (signal.aborted) return false;
  await writeReport(options.report, html, false);
  steps.reported({ ...made, file: options.report, bytes: Buffer.byteLength(html) });
  return true;
}

/** Surveys the archive, whose pages have hardly any images and every fault besides. */
async function surveyArchive(workspace: Workspace, task: TaskOptions): Promise<RankResult> {
  const archive = await serveArchive();
  try {
    const { survey: head } = await survey(workspace, [archive.start], {
      ...task,
      views: demoViews,
      policy: defaultPolicy,
      scope: { pages: 50 },
      tabs: 2,
      hosts: archive.hosts,
      anyCertificate: true,
      label: 'brindle-bay-archive',
      noEncodes: true,
    });
    return await rank(workspace, head.label, defaultPolicy, task);
  } finally {
    await archive.close();
  }
}
