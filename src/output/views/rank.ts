import type { Grouping } from '../../core/rank/groupings.js';
import type { Network } from '../../core/visitors/network.js';
import type { RankedRows, RankResult } from '../../core/rank/rank-view.js';

/** What a ranking is shown from. */
export interface RankView extends RankedRows {
  readonly result: RankResult;
  readonly by: Grouping;
  readonly unweighted: boolean;
  /** Its filters in words; empty if nothing is left out. */
  readonly narrowed: string;
  /** Counts the findings, which reads every placement; by default only where that is quick. */
  readonly findings?: boolean;
  /** The loads that times are predicted from; left out where nobody asks for times. */
  readonly timed?: { readonly pages: number; readonly network: Network };
  /** How many images are listed in full. */
  readonly imageLimit: number;
}
