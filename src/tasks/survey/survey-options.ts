import type { VisitLimits } from '../../browser/visit/page-visit.js';
import type { Access } from '../../core/address/access.js';
import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import type { View } from '../../core/visitors/view.js';
import type { ListedPage } from '../../crawl/address-list.js';
import type { Scope } from '../../crawl/scope.js';
import type { SurveyOutcome } from '../../output/views/survey.js';
import type { TaskOptions } from '../progress.js';
import type { CrewWork } from './crew-work.js';
import type { FirstRanking } from './first-ranking.js';
import type { HostOptions } from './starts.js';

export interface SurveyOptions extends TaskOptions, HostOptions {
  readonly label?: string | undefined;
  readonly views: readonly View[];
  /** Which pages are visited. */
  readonly scope: Scope;
  /** Pages to begin with besides the starts, as `readAddressList` returns them. */
  readonly listed?: readonly ListedPage[];
  /** Sitemaps: addresses, files, or `robots` for those that robots.txt names. */
  readonly sitemaps?: readonly string[];
  /** Also visits what robots.txt disallows. */
  readonly ignoreRobots?: boolean;
  /** The user agent; without it, the browser's own with the tool's name appended. */
  readonly userAgent?: string | undefined;
  /** Pages that are loaded at the same time. */
  readonly tabs: number;
  /** Milliseconds between the starts of two page loads from one host. */
  readonly pace?: number;
  /** The most retries of a page that failed but may succeed next time. */
  readonly retries?: number;
  /** What is shown to hosts so that they let the tool in; never kept. */
  readonly accesses?: readonly Access[];
  /** Bytes that the browser may have. */
  readonly memory?: number | undefined;
  /** File of cookies and local storage saved by a browser; never stored. */
  readonly browserState?: string | undefined;
  /** Accepts certificates that do not verify. */
  readonly anyCertificate?: boolean;
  /** Page groups named by a person. */
  readonly groups?: readonly NamedGroup[];
  /** Stores no image bodies, and so no encodes. */
  readonly noBodies?: boolean;
  /** Takes no pictures of first screens. */
  readonly noPictures?: boolean;
  /** Leaves the encodes to the first command that needs them. */
  readonly noEncodes?: boolean;
  readonly policy: Policy;
  readonly limits?: VisitLimits;
  /** Told what is wasted as soon as every image was encoded once; workers of a crew encode them as a whole. */
  readonly onFirstRanking?: ((ranking: FirstRanking) => void | Promise<void>) | undefined;
  /** Who works on it besides. */
  readonly crew?: Crew | undefined;
}

/** An interrupted survey, to be resumed with the settings it started with. */
export interface ResumeOptions extends Omit<
  SurveyOptions,
  'views' | 'scope' | 'label' | 'list' | 'sitemaps'
> {
  /** Label of the survey; by default the newest. */
  readonly survey?: string | undefined;
}

/** A survey that takes over from an earlier one what has not changed. */
export interface ChangedOptions extends Omit<SurveyOptions, 'views' | 'scope' | 'list'> {
  /** Label of the earlier survey, whose starts, views and settings of the crawl are taken. */
  readonly since: string;
}

/** Workers on other machines that do a part of a survey. */
export interface Crew {
  /** Whether they visit all pages, and this program only leads. */
  readonly doesAll: boolean;
  /** Begins to give them work of a survey. */
  readonly begin: (head: SurveyHead, options: WorkOptions) => CrewWork;
  /** Waits until a page may be loaded at the pace that all keep together. */
  readonly turn: (url: string, pace: number, signal?: AbortSignal) => Promise<void>;
}

/** What a survey comes to. */
export type SurveyResult = SurveyOutcome;

/** What the work on a survey depends on, whether it is new or resumed. */
export type WorkOptions = Omit<SurveyOptions, 'label' | 'list' | 'sitemaps'>;
