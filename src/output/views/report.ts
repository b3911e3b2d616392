import type { MuteRule } from '../../core/policy/mutes.js';
import type { FindingRow } from '../../core/rank/finding-rows.js';
import type { LedgerRow, RankResult, RankRow } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import type { Fix } from '../../core/refit/work/fix.js';
import type { PagePlan } from '../../core/report/page-plans.js';
import type { ClockedPage } from './clock.js';
import type { ComparedPageView } from './compare.js';
import type { RankView } from './rank.js';

/** What a report is made from. */
export interface ReportView {
  readonly program: { readonly name: string; readonly version: string };
  /** ISO 8601, UTC. */
  readonly createdAt: string;
  /** By slot family, all rows; its limit is that of the images which are listed in full. */
  readonly ranking: RankView<LedgerRow> & { readonly result: RankResult };
  /** All pages that images were ranked on. */
  readonly byPage: readonly RankRow[];
  readonly findings: readonly FindingRow[];
  readonly site: readonly SiteFinding[];
  readonly muted: readonly MuteRule[];
  /** Where the images of pages stand; none in surveys of older versions. */
  readonly plans: readonly PagePlan[];
  /** Pages whose plans are not among them, because others waste more. */
  readonly plansLeftOut: number;
  /** What is to be done about an image. */
  readonly fixOf: (image: RankedImage) => Fix;
  readonly sessions: readonly ClockedPage[];
  readonly comparisons: readonly ComparedPageView[];
  /** Trials as they were printed (`zealous-lynx.trial/1`), the newest first. */
  readonly trials: readonly unknown[];
  readonly work: ReportWork;
}

/** What is to be done, by whom. */
export interface ReportWork {
  /** The largest saving first. */
  readonly items: readonly WorkItem[];
  /** The markup to paste (`zealous-lynx.snippets/1`); `null` without a refit. */
  readonly snippets: unknown;
}
