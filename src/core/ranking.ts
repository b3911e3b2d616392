import { hostOf } from './address.js';
import { Allowances } from './allowance.js';
import type { PolicyRule } from './allowance.js';
import { judgeDelivery, sentOnce, sizingOf, timesSent } from './delivery.js';
import type { Judgement, Sent } from './delivery.js';
import { groupBy } from './group-by.js';
import type { ImageFile, ImageResponse } from './image-file.js';
import { needFactor, pixelsAt } from './need.js';
import type { Placement } from './placement.js';
import type { Policy } from './policy.js';
import { sumOf } from './portion.js';
import type { Portion } from './portion.js';
import { RankedImage } from './ranked-image.js';
import type { CurveOf } from './ranked-image.js';
import type { Size } from './size.js';
import type { SurveyFacts } from './survey.js';
import type { View } from './view.js';
import { addCauses } from './waste.js';
import type { WasteByCause } from './waste.js';
import { weighVisits } from './weight.js';
import type { VisitKey, Weights } from './weight.js';

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
  /** Of the files, each once; the sums of what the rows of `images` say. */
  readonly totals: RankTotals;
  /** Files with the most waste first; those that cannot be judged last. */
  readonly images: readonly RankedImage[];
  /** What an average visit has; the sums of what any grouping says. */
  readonly perVisit: Portion;
  readonly weights: Pick<Weights, 'visitsAMonth' | 'guessedPages'>;
  /** Image files that were fetched, but placed nowhere; they are among the images that cannot be judged. */
  readonly unplaced: number;
  /** Rules of the policy that hold for nothing in this survey. */
  readonly unmatchedRules: readonly PolicyRule[];
}

export interface RankOptions {
  /** Lets every visit count the same, whatever the audience. */
  readonly unweighted?: boolean | undefined;
}

/** Judges the image files of a survey, each by itself and in every visit that it was sent to. */
export function rankImages(
  facts: SurveyFacts,
  policy: Policy,
  { unweighted = false }: RankOptions = {},
): Ranking {
  const groups = new Map(facts.pages.map(({ url, group }) => [url, group]));
  const allowances = new Allowances(policy.rules, groups);
  const views = new Map(facts.head.views.map((view) => [view.name, view]));
  const own = new Set(policy.ownHosts);
  const isForeign = ({ thirdParty, url }: ImageResponse) => thirdParty && !own.has(hostOf(url));
  const judgement: Judgement = { policy, allowances, views, isForeign };
  const weights = weighVisits(visitsOf(facts), facts.pages, facts.head.views, unweighted);
  const responses = groupBy(facts.responses, ({ contentHash }) => contentHash ?? '');
  const placements = groupBy(facts.placements, ({ contentHash }) => contentHash ?? '');
  const encoded = new Map(facts.encoded.map((result) => [result.contentHash, result]));
  const curves = curvesOf(facts);
  const images = facts.files.map((file) => {
    const answers = responses.get(file.contentHash) ?? [];
    const placed = placements.get(file.contentHash) ?? [];
    const result = encoded.get(file.contentHash);
    const deliveries = visitsWith(placed, answers).map((sent) => ({
      ...judgeDelivery(file, result, sent, judgement),
      weight: weights.of(sent),
    }));
    const found = { file, responses: answers, placed, encoded: result, deliveries };
    return new RankedImage(found, curves, judgement);
  });
  images.sort(byWaste);
  const { visitsAMonth, guessedPages } = weights;
  return {
    totals: totalsOf(images),
    perVisit: sumOf(images.map(({ perVisit }) => perVisit)),
    images,
    weights: { visitsAMonth, guessedPages },
    unplaced: images.filter(({ placed }) => placed.length === 0).length,
    unmatchedRules: allowances.unmatched,
  };
}

/** The visits that were measured: those to pages that answered, and whatever else something was found in. */
function visitsOf({ pages, head, placements, responses }: SurveyFacts): VisitKey[] {
  const seen = new Map<string, Set<string>>();
  const add = (page: string, view: string) => {
    const views = seen.get(page);
    if (views) views.add(view);
    else seen.set(page, new Set([view]));
  };
  for (const { url, status } of pages)
    if (status !== null && status < 400) for (const { name } of head.views) add(url, name);
  for (const { page, view } of placements) add(page, view);
  for (const { page, view } of responses) add(page, view);
  return [...seen].flatMap(([page, views]) => [...views].map((view) => ({ page, view })));
}

/** What each visit has of one file. */
function visitsWith(placements: readonly Placement[], responses: readonly ImageResponse[]): Sent[] {
  interface Gathered extends Sent {
    readonly placements: Placement[];
    readonly responses: ImageResponse[];
  }
  const visits = new Map<string, Map<string, Gathered>>();
  let last: Gathered | undefined;
  const at = ({ page, view }: VisitKey): Gathered => {
    // What belongs together comes together.
    if (last?.page === page && last.view === view) return last;
    let views = visits.get(page);
    if (!views) visits.set(page, (views = new Map<string, Gathered>()));
    let visit = views.get(view);
    if (!visit) views.set(view, (visit = { page, view, placements: [], responses: [] }));
    return (last = visit);
  };
  for (const placement of placements) at(placement).placements.push(placement);
  for (const response of responses) at(response).responses.push(response);
  return [...visits.values()].flatMap((views) => [...views.values()]);
}

/** Slot curves by what they are of; the text that would be one key takes longer than steps from map to map. */
function curvesOf({ curves }: Pick<SurveyFacts, 'curves'>): CurveOf {
  const pages = groupBy(curves, ({ page }) => page);
  const keyed = new Map<string, Map<string, (typeof curves)[number]>>();
  const keyOf = ({ kind, selector }: { kind: string; selector: string }) => `${kind} ${selector}`;
  return (placement) => {
    let known = keyed.get(placement.page);
    if (!known) {
      const entries = pages.get(placement.page) ?? [];
      known = new Map(entries.map((curve) => [keyOf(curve), curve]));
      keyed.set(placement.page, known);
    }
    return known.get(keyOf(placement))?.pieces ?? null;
  };
}

/** The largest need of each file that has pixels and is shown, over its placements, by content hash. */
export function largestNeeds(
  placements: Iterable<Placement>,
  files: readonly ImageFile[],
  views: readonly View[],
  policy: Policy,
  allowances: Allowances,
): Map<string, Size> {
  const byHash = new Map(files.map((file) => [file.contentHash, file]));
  const densities = new Map(views.map(({ name, density }) => [name, density]));
  const factors = new Map<string, number>();
  for (const placement of placements) {
    const { contentHash, view, shown } = placement;
    const intrinsic = byHash.get(contentHash ?? '')?.intrinsic;
    if (!intrinsic || !shown || contentHash === null) continue;
    const density = densities.get(view) ?? 1;
    const sizing = { ...sizingOf(placement), density };
    const factor = needFactor(sizing, intrinsic, policy, allowances.of(placement));
    factors.set(contentHash, Math.max(factor, factors.get(contentHash) ?? 0));
  }
  return new Map(
    [...factors].map(([hash, factor]) => [hash, pixelsAt(byHash.get(hash)!.intrinsic!, factor)]),
  );
}

function byWaste(a: RankedImage, b: RankedImage): number {
  return (
    b.perVisit.wasteBytes - a.perVisit.wasteBytes ||
    (b.waste?.wasteBytes ?? -1) - (a.waste?.wasteBytes ?? -1) ||
    (a.url < b.url ? -1 : 1)
  );
}

function totalsOf(images: readonly RankedImage[]): RankTotals {
  let [neededBytes, wasteBytes, unknownBytes] = [0, 0, 0];
  for (const { waste, file, encoded, responses, urls } of images) {
    if (!waste) unknownBytes += sentOnce(file, encoded, responses) * timesSent(urls);
    neededBytes += waste?.neededBytes ?? 0;
    wasteBytes += waste?.wasteBytes ?? 0;
  }
  return {
    sentBytes: neededBytes + wasteBytes,
    neededBytes,
    wasteBytes,
    wasteByCause: addCauses(images.flatMap(({ waste }) => waste?.causes ?? [])),
    unknownBytes,
  };
}
