import { hostOf } from '../../core/address/address.js';
import type { Policy } from '../../core/policy/policy.js';
import { findingRows } from '../../core/rank/finding-rows.js';
import { rowsOf } from '../../core/rank/rank-view.js';
import { rowTimes } from '../../core/rank/row-times.js';
import { drawnPages } from '../../core/report/drawn-pages.js';
import { PagePlans } from '../../core/report/page-plans.js';
import type { PagePlan } from '../../core/report/page-plans.js';
import { Redaction } from '../../core/report/redact.js';
import { fixOf } from '../../core/refit/work/fix.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import { reportHtml } from '../../output/html/report.js';
import type { Pictures } from '../../output/html/report.js';
import { reportDocument } from '../../output/json/report.js';
import type { ReportFileDocument } from '../../output/json/report.js';
import type { ReportView } from '../../output/views/report.js';
import type { WrittenReport } from '../../output/views/written-report.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';
import { findTimedPages } from '../timed-pages.js';
import type { RankResult } from '../rank.js';
import { siteFindings } from '../site-findings.js';
import { comparisonsOf, pairsOf, sessionsOf } from './loads.js';
import { framesOf, imagePairs, thumbnailsOf } from './pictures.js';
import type { ImagePairs } from './pictures.js';
import { reportApp } from './report-app.js';
import { reportWork } from './work.js';

export interface ReportOptions extends TaskOptions {
  /** Label of the survey; by default the newest. */
  readonly survey?: string | undefined;
  readonly groups?: readonly NamedGroup[];
  /** Labels of sessions that are set against each other, besides those that say so themselves. */
  readonly pairs?: readonly (readonly [before: string, after: string])[];
  /** The folder of a refit, whose work list and markup are handed over. */
  readonly refit?: string | undefined;
  /** Leaves hosts, headers and query strings out. */
  readonly redact?: boolean;
  /** Leaves pictures out. */
  readonly lean?: boolean;
  readonly title?: string | undefined;
  /** How many of the images and pages that waste the most are listed and drawn; by default as many as a browser can bear. */
  readonly most?: ReportLimits;
  readonly program: { readonly name: string; readonly version: string };
}

export interface ReportLimits {
  readonly images: number;
  readonly plans: number;
}

/** A report, ready to be written. */
export interface MadeReport extends Omit<WrittenReport, 'file' | 'bytes'> {
  readonly html: string;
}

/** Images that are shown before and after. */
const pairsShown = 24;
/** Placements that are listed of each image; in a lean report, of which there may be many. */
const placementsShown = { usual: 12, lean: 4 };
/** With more of them a browser would take more than a few seconds to open the file. */
const usualLimits: ReportLimits = { images: 30_000, plans: 5_000 };
/** The most trials in a report. */
const maxTrials = 10;

/**
 * Makes one file of a survey, with the sessions, comparisons and trials of its pages.
 *
 * @throws NotFoundError when there is no such survey, or no such refit.
 */
export async function makeReport(
  workspace: Workspace,
  policy: Policy,
  options: ReportOptions,
): Promise<MadeReport> {
  const { lean = false, redact = false } = options;
  const result = await rank(workspace, options.survey, policy, options);
  const view = await viewOf(workspace, result, policy, options);
  const images = view.ranking.images.slice(0, view.ranking.imageLimit);
  const films = view.sessions.map(({ film }) => film);
  // They are drawn while the document is put together.
  const drawing = lean ? [] : thumbnailsOf(workspace, images, options);
  const document = reportDocument(view);
  const thumbnails: readonly string[] = await drawing;
  const pairs: ImagePairs = lean
    ? { pairs: [], pictures: [] }
    : await imagePairs(workspace, images, pairsShown, options);
  const screens = lean ? [] : screensOf(workspace, result, view.plans);
  const own = hostOf(result.survey.starts[0] ?? '');
  const title = options.title ?? `${redact ? 'A site' : own}: images and loading`;
  const whole: ReportFileDocument = {
    title,
    ...{ lean, redacted: redact, pairs: pairs.pairs },
    films: filmPlaces(films),
    ...document,
  };
  const pictures: Pictures = {
    ...{ thumbnails, screens, pairs: pairs.pictures },
    frames: lean ? [] : framesOf(films),
  };
  return {
    html: reportHtml(title, redact ? withoutHosts(whole, own) : whole, pictures, await reportApp()),
    ...{ survey: result.survey.label, isUnfinished: result.survey.finishedAt === null },
    ...{ pages: result.pages.length, images: view.ranking.images.length },
    ...{ imagesLeftOut: view.ranking.images.length - images.length },
    plansLeftOut: view.plansLeftOut,
    ...{ sessions: view.sessions.length, comparisons: view.comparisons.length },
    ...{ trials: view.trials.length, workItems: view.work.items.length },
    withoutPicture: thumbnails.filter((thumbnail) => thumbnail === '').length,
    firstWithoutPicture: redact ? null : (images[thumbnails.indexOf('')]?.url ?? null),
  };
}

async function viewOf(
  workspace: Workspace,
  result: RankResult,
  policy: Policy,
  options: ReportOptions,
): Promise<ReportView> {
  const { most = usualLimits } = options;
  const query = { sort: 'waste', top: Infinity, filter: {}, policy } as const;
  const timed = findTimedPages(workspace, result);
  const timeOf = timed && rowTimes(result, timed.pages);
  const families = rowsOf(result, { by: 'family', ...query, ...(timeOf && { timeOf }) });
  const pages = rowsOf(result, { by: 'page', ...query });
  const site = siteFindings(workspace, result);
  const drawn = drawnPages(
    [...pages.rows, ...pages.thirdParty].map(({ key }) => key),
    result.pages.map(({ url }) => url),
    most.plans,
  );
  const named = new Set(result.pages.flatMap(({ url, finalUrl }) => [url, finalUrl]));
  const pairs = [...pairsOf(workspace.sessions.labels()), ...(options.pairs ?? [])];
  return {
    program: options.program,
    createdAt: new Date().toISOString(),
    ranking: {
      ...families,
      ...{ result, by: 'family', unweighted: false, narrowed: '' },
      imageLimit: most.images,
      placementLimit: options.lean ? placementsShown.lean : placementsShown.usual,
    },
    byPage: pages.rows,
    findings: findingRows(families.images, site),
    site,
    muted: policy.mute,
    plans: plansOf(workspace, result, (page) => drawn.has(page)),
    plansLeftOut: Math.max(0, result.pages.length - most.plans),
    fixOf: (image) => fixOf(image, policy.widths),
    sessions: sessionsOf(workspace, named),
    comparisons: await comparisonsOf(workspace, pairs, named),
    trials: workspace.trials
      .list(maxTrials)
      .flatMap(({ document }) => pagesOfTrial(document))
      .filter(({ page }) => named.has(page)),
    work: await reportWork(result, site, policy, options.refit),
  };
}

function pagesOfTrial(document: unknown): readonly { readonly page: string }[] {
  return (document as { pages: readonly { page: string }[] }).pages;
}

function plansOf(
  { pages }: Workspace,
  { ledger, survey }: RankResult,
  isDrawn: (page: string) => boolean,
): PagePlan[] {
  const plans = new PagePlans(ledger);
  return [...pages.screens.ofSurvey(survey.id, isDrawn)].flatMap(
    (screen) => plans.of(screen) ?? [],
  );
}

/** The pictures of first screens in the order of the plans, as WebP in base64; empty where none was taken. */
function screensOf(
  { pages }: Workspace,
  { survey }: RankResult,
  plans: readonly PagePlan[],
): string[] {
  const due = new Set(plans.map(({ page, view }) => `${page}\n${view}`));
  const drawn = new Set(plans.map(({ page }) => page));
  return [...pages.screens.ofSurvey(survey.id, (page) => drawn.has(page))]
    .filter(({ page, view }) => due.has(`${page}\n${view}`))
    .map(({ picture }) => Buffer.from(picture() ?? []).toString('base64'));
}

function filmPlaces(films: readonly ({ readonly frames: readonly unknown[] } | null)[]): number[] {
  let next = 0;
  return films.map((film) => {
    const first = next;
    next += film?.frames.length ?? 0;
    return first;
  });
}

function withoutHosts<Document>(document: Document, own: string): Document {
  const redaction = new Redaction(own);
  redaction.learn(document);
  return redaction.apply(document);
}
