import type { RankView } from './rank.js';

/** A ranking of a survey that still encodes: its needed bytes are estimated from one encode of each image. */
export interface FirstRankingView {
  readonly ranking: RankView;
  /** How many images were encoded once. */
  readonly estimated: number;
}
