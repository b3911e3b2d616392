import { fixCurve } from '../../core/report/fix-curve.js';
import { costliestPlacement } from '../../core/report/page-plans.js';
import type { PagePlan } from '../../core/report/page-plans.js';
import type { LedgerRow, RankRow } from '../../core/rank/rank-view.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import { findingKind } from '../../core/findings/index.js';
import type { ClockedPage } from '../views/clock.js';
import type { ReportView } from '../views/report.js';
import { findingWords } from '../words/findings.js';
import { nameOf, originOf } from '../words/rank.js';
import { reportSentences } from '../words/report.js';
import { ticketText } from '../markdown/tickets.js';
import { worklistCsv } from '../csv/worklist.js';
import { sessionDocument } from './clock.js';
import { compareDocument } from './compare.js';
import { findingsDocument } from './rank-findings.js';
import { rankDocument } from './rank.js';
import { worklistDocument } from './worklist.js';

/** The document of a report. */
export type ReportDocument = ReturnType<typeof reportDocument>;

/** The document as a report file carries it: with what its pictures are of. */
export interface ReportFileDocument extends ReportDocument {
  readonly title: string;
  /** Whether pictures, and whether hosts were left out. */
  readonly lean: boolean;
  readonly redacted: boolean;
  /** Of each two pictures in `pairs` the image, and their size. */
  readonly pairs: readonly {
    readonly image: number;
    readonly width: number;
    readonly height: number;
  }[];
  /** The place of the first frame of each session's film among all frames. */
  readonly films: readonly number[];
}

/** The most responses that are listed of an image. */
const maxAnswers = 3;

/**
 * A report as the document `zealous-lynx.report/1`: the documents of `rank`, `rank --by finding`, `clock`, `compare`,
 * `trial` and of a refit's work list, with what joins them: places in the lists of images (`rank.images`) and of pages.
 */
export function reportDocument(view: ReportView) {
  const { ranking, byPage, findings, site, muted, sessions, comparisons, trials, work } = view;
  const { result, rows, thirdParty } = ranking;
  const images = ranking.images.slice(0, ranking.imageLimit);
  const imageAt = new Map(images.map(({ fileIndex }, at) => [fileIndex, at]));
  const pageAt = new Map(result.pages.map(({ url }, at) => [url, at]));
  const origin = originOf(result.survey);
  const whole = rankDocument(ranking);
  const curve = fixCurve(rows.map(({ perVisit }) => perVisit.wasteBytes));
  return {
    format: 'zealous-lynx.report/1',
    program: view.program,
    createdAt: view.createdAt,
    sentences: reportSentences(view),
    curve: curve.saved.map((bytes) => Math.round(bytes)),
    rank: {
      ...whole,
      images: whole.images.map(({ answers, ...image }) => ({
        ...image,
        answers: answers.slice(0, maxAnswers),
      })),
    },
    /** Of each image, how many of its placements are not listed. */
    placementsLeftOut: images.map(
      ({ placementCount }, at) => placementCount - whole.images[at]!.placements.length,
    ),
    families: [...rows, ...thirdParty].map((row) => ({
      name: nameOf(row, 'family', origin),
      images: row.images.flatMap(({ fileIndex }) => imageAt.get(fileIndex) ?? []),
      place: placeOf(row, view, pageAt),
    })),
    fixes: images.map((image) => {
      const { steps, sizes, plan } = view.fixOf(image);
      const { nature = null, attempts = [], need = null } = image.encoded ?? {};
      return { steps, sizes, widths: plan.widths, nature, encodedAt: need, trials: attempts };
    }),
    findings: findingsDocument({
      ...{ rows: findings, result, muted, top: findings.length },
      ...{ narrowed: '', isNamed: true },
    }),
    found: site.map((finding) => foundDocument(finding, pageAt)),
    pages: pagesOf(view, byPage, imageAt),
    /** Pages without a plan, because others waste more. */
    plansLeftOut: view.plansLeftOut,
    /** Page and view of each picture of a first screen, in their order. */
    screens: view.plans.map(({ page, view: name }) => `${pageAt.get(page) ?? -1} ${name}`),
    sessions: sessions.map(sessionDocument),
    /** Of each session the headers of its requests, in their order. */
    headers: sessions.map(headersOf),
    comparisons: compareDocument({ pages: comparisons }).pages,
    trials,
    worklist: worklistDocument(work.items),
    tickets: work.items.map(ticketText),
    worklistCsv: worklistCsv(work.items),
    snippets: work.snippets,
  };
}

/** Where a row can be seen best: the placement that costs the most. */
function placeOf(row: LedgerRow, { ranking }: ReportView, pageAt: ReadonlyMap<string, number>) {
  const { ledger } = ranking.result;
  const placement = costliestPlacement(ledger, row.rows);
  if (placement < 0) return null;
  const { page, view, selector } = ledger.facts.placements.at(placement);
  return { page: pageAt.get(page) ?? -1, view, selector };
}

function foundDocument(finding: SiteFinding, pageAt: ReadonlyMap<string, number>) {
  const { id, data, url, group, thirdParty, pages, count, perVisit, timePerVisit } = finding;
  const kind = findingKind(id);
  return {
    ...{ id, title: kind?.title ?? id, message: findingWords(finding), url, group, thirdParty },
    ...{ doer: kind?.doer ?? null, fix: kind?.fix ?? '', count, data },
    step: kind?.step?.(data) ?? null,
    code: kind?.code?.(data) ?? null,
    pages: pages.flatMap((page) => pageAt.get(page) ?? []),
    bytesPerVisit: perVisit === null ? null : Math.round(perVisit),
    timePerVisit: timePerVisit === null ? null : Math.round(timePerVisit),
  };
}

function pagesOf(
  { ranking, plans, site }: ReportView,
  byPage: readonly RankRow[],
  imageAt: ReadonlyMap<number, number>,
) {
  const rows = new Map(byPage.map((row) => [row.key, row]));
  const plansOf = new Map<string, PagePlan[]>();
  for (const plan of plans) plansOf.set(plan.page, [...(plansOf.get(plan.page) ?? []), plan]);
  const order = new Map(ranking.result.survey.views.map(({ name }, at) => [name, at]));
  const inOrder = (some: readonly PagePlan[]) =>
    some.toSorted((a, b) => (order.get(a.view) ?? 0) - (order.get(b.view) ?? 0));
  const found = new Map<string, number[]>();
  for (const [at, { pages }] of site.entries())
    for (const page of pages) found.set(page, [...(found.get(page) ?? []), at]);
  return ranking.result.pages.map(({ url, group, status, error, visits, bytesByType }) => ({
    ...{ url, group, status, error, visits, bytesByType },
    perVisit: rows.get(url)?.perVisit ?? null,
    ofPage: rows.get(url)?.ofPage ?? null,
    found: found.get(url) ?? [],
    views: inOrder(plansOf.get(url) ?? []).map(({ view, width, height, boxes }) => ({
      ...{ view, width, height },
      /** Six numbers an element: its image, left, top, width, height, and the bytes that such a visit wastes on it. */
      boxes: boxes.flatMap((box) => [
        imageAt.get(box.file) ?? -1,
        ...[box.left, box.top, box.width, box.height, Math.round(box.wasteBytes)],
      ]),
    })),
  }));
}

function headersOf({ medianRun }: ClockedPage) {
  return medianRun.requests.map(({ requestHeaders, responseHeaders }) => ({
    request: requestHeaders,
    response: responseHeaders,
  }));
}
