import { hostOf } from '../address/address.js';
import type { ExactSums } from '../base/exact-sums.js';
import type { PolicyRule } from '../policy/allowance.js';
import { openLedger } from '../waste/open-ledger.js';
import type { Ledger } from '../waste/ledger.js';
import { allowancesOf, needsOfPlacements } from '../waste/placement-needs.js';
import type { PlacementNeeds } from '../waste/placement-needs.js';
import type { Policy } from '../policy/policy.js';
import { RankedImage } from './ranked-image.js';
import { rankedPictures } from './ranked-picture.js';
import type { RankedPicture } from './ranked-picture.js';
import type { SurveyFacts } from '../survey/survey.js';
import type { WasteByCause } from '../waste/waste.js';
import { weighVisits } from '../waste/visit-weights.js';
import type { VisitWeights } from '../waste/visit-weights.js';

/** Totals of the image files, each counted once. */
export interface RankTotals {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly wasteByCause: WasteByCause;
  /** Bytes of files that cannot be judged, in none of the other totals. */
  readonly unknownBytes: number;
}

export interface Ranking {
  readonly ledger: Ledger;
  /** Files with the most waste first; those that cannot be judged last. */
  readonly images: readonly RankedImage[];
  /** The same files by what they show, in the order of the files that waste the most. */
  readonly pictures: readonly RankedPicture[];
  readonly weights: Pick<VisitWeights, 'visitsAMonth' | 'guessedPages'>;
  /** Image files that were fetched, but placed nowhere; they are among the images that cannot be judged. */
  readonly unplaced: number;
  /** Rules of the policy that hold for nothing in this survey. */
  readonly unmatchedRules: readonly PolicyRule[];
}

export interface RankOptions {
  /** Lets every visit count the same, whatever the audience. */
  readonly unweighted?: boolean | undefined;
  /** What the placements need, where it is known already. */
  readonly needs?: PlacementNeeds | undefined;
  /** What the visits weigh, where the survey has more of them. */
  readonly weights?: VisitWeights | undefined;
}

/** Judges every delivery of a survey, or of a part of one. */
export function ledgerOf(
  facts: SurveyFacts,
  policy: Policy,
  needs: PlacementNeeds,
  weights: VisitWeights,
): Ledger {
  const own = new Set(policy.ownHosts);
  return openLedger(facts, {
    ...{ policy, needs, weights, allowances: allowancesOf(policy, facts.pages) },
    isForeign: ({ thirdParty, url }) => thirdParty && !own.has(hostOf(url)),
  });
}

/** Judges the image files of a survey, each by itself and in every visit that it was sent to. */
export function rankImages(
  facts: SurveyFacts,
  policy: Policy,
  { unweighted = false, needs = needsOfPlacements(facts, policy), ...given }: RankOptions = {},
): Ranking {
  const { pages, head, visits, files } = facts;
  const weights = given.weights ?? weighVisits(visits, pages, head.views, unweighted);
  const ledger = ledgerOf(facts, policy, needs, weights);
  const images = files.flatMap((_, at) =>
    ledger.starts[at + 1]! > ledger.starts[at]! ? new RankedImage(ledger, at) : [],
  );
  images.sort(byWaste(ledger.wasteByFile()));
  const { visitsAMonth, guessedPages } = weights;
  return {
    ledger,
    images,
    pictures: rankedPictures(images, facts.pictures),
    weights: { visitsAMonth, guessedPages },
    unplaced: images.filter(({ isPlaced }) => !isPlaced).length,
    unmatchedRules: needs.unmatchedRules,
  };
}

/** @param perVisit bytes that an average visit wastes, by the place of the file */
function byWaste(perVisit: ExactSums): (a: RankedImage, b: RankedImage) => number {
  return (a, b) =>
    perVisit.at(b.fileIndex) - perVisit.at(a.fileIndex) ||
    (b.waste?.wasteBytes ?? -1) - (a.waste?.wasteBytes ?? -1) ||
    (a.url < b.url ? -1 : 1);
}
