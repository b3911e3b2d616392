import type { Grouping } from '../../core/rank/groupings.js';
import type { Network } from '../../core/visitors/network.js';
import type { RankedRows, RankedSurvey, RankRow } from '../../core/rank/rank-view.js';

/** What a ranking is shown from. */
export interface RankView<Row extends RankRow = RankRow> extends RankedRows<Row> {
  readonly result: RankedSurvey;
  readonly by: Grouping;
  readonly unweighted: boolean;
  /** Its filters in words; empty if nothing is left out. */
  readonly narrowed: string;
  /** How many pictures have each finding; left out where counting them takes its time and nobody asks for it. */
  readonly found?: ReadonlyMap<string, number> | undefined;
  /** The loads that times are predicted from; left out where nobody asks for times. */
  readonly timed?: { readonly pages: number; readonly network: Network };
  /** How many images are listed in full. */
  readonly imageLimit: number;
  /** How many placements are listed of each; left out, all are. */
  readonly placementLimit?: number;
}
