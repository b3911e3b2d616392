import type { HostMap } from '../../browser/chromium/host-map.js';
import type { VisitLimits } from '../../browser/visit/visit.js';
import type { Access } from '../../core/address/access.js';
import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { View } from '../../core/visitors/view.js';
import type { Scope } from '../../crawl/frontier.js';
import type { SurveyOutcome } from '../../output/views/survey.js';
import type { TaskOptions } from '../progress.js';

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

/** What a survey comes to. */
export type SurveyResult = SurveyOutcome;

/** What the work on a survey depends on, whether it is new or resumed. */
export type WorkOptions = Omit<SurveyOptions, 'label' | 'list' | 'sitemaps'>;
