import type { VisitorSettings } from '../../browser/chromium/access.js';
import type { HostOptions } from '../survey/starts.js';
import type { SessionComparison } from '../../core/load/comparison.js';
import type { Film } from '../../core/pixels/film.js';
import type { PredictedChange } from '../../core/load/predict.js';
import type { MovedPlacement } from '../../core/trial/moved-placements.js';
import type { Network } from '../../core/visitors/network.js';
import type { View } from '../../core/visitors/view.js';
import type { AlikeRequest, UnrecordedRequest } from '../../replay/recorded-source.js';
import type { ComparedPage } from '../clock/compare.js';
import type { TaskOptions } from '../progress.js';

export interface TrialOptions extends TaskOptions, HostOptions, VisitorSettings {
  /** Names the sessions of both sides; by default `trial-` and a number. */
  readonly label?: string | undefined;
  /** Loads of each side. */
  readonly runs: number;
  /** The most loads of each side, where more of them would settle what the first ones leave open. */
  readonly mostRuns: number;
  readonly network: Network;
  readonly cpuFactor: number;
  readonly view: View;
  readonly warm: boolean;
  /** A HAR file with contents that is replayed instead of a page that is recorded. */
  readonly har?: string | undefined;
  /** The folder of a refit. */
  readonly refit?: string | undefined;
  /** A folder of files that a person made by hand. */
  readonly files?: string | undefined;
  /** Hosts that are to be done without. */
  readonly withoutHosts: readonly string[];
  /** The fixes by their names, `none` among them; empty for the usual ones. */
  readonly fixes: readonly string[];
  /** Fixes that are left out. */
  readonly without: readonly string[];
  /** Bytes that all processes of the browser may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
  /** Loads the page with each fix alone, too. */
  readonly each: boolean;
  /** Films one extra load of each side at the end. */
  readonly film: boolean;
  /** Milliseconds within which the load event must fire. */
  readonly timeout?: number | undefined;
  readonly creator: { readonly name: string; readonly version: string };
}

/** A fix as it was applied to a page. */
export interface AppliedFix {
  readonly name: string;
  readonly title: string;
  readonly unit: string;
  readonly changed: number;
  readonly notes: readonly string[];
  /** The page with this fix alone against the page as it is; `null` where it was not loaded. */
  readonly alone: SessionComparison | null;
  /** What it should bring alone, from a simulation; `null` where that cannot tell. */
  readonly predicted: PredictedChange | null;
}

/** One page as it is, and with the fixes. */
export interface TriedPage extends ComparedPage {
  readonly fixes: readonly AppliedFix[];
  /** The same with the cache of a first visit; `null` where that was not asked for. */
  readonly warm: ComparedPage | null;
  /** The HAR file of the recording. */
  readonly recording: string;
  /** Recorded responses whose body is not there, with the reason. */
  readonly missing: readonly { readonly url: string; readonly reason: string }[];
  /** What either side asked for that is not in the recording. */
  readonly unrecorded: readonly UnrecordedRequest[];
  readonly alike: readonly AlikeRequest[];
  /** What visitors see of the page as it is, and with the fixes; none where nothing was filmed. */
  readonly films: readonly (Film | null)[];
  readonly moved: readonly MovedPlacement[];
  /** Placements that only one side has. */
  readonly unpaired: number;
}

export interface TrialOutcome {
  readonly pages: readonly TriedPage[];
  readonly interrupted: boolean;
}
