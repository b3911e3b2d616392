import jstat from 'jstat';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import {
  cumulativeStdNormalProbability,
  quantileSorted,
  standardDeviation,
} from 'simple-statistics';

/** The evidence of the runs on the difference between two medians. */
export interface MedianDifference {
  /** After less before, in the unit of the values. */
  readonly difference: number;
  /** Between these two the true difference lies with 95 % confidence; `null` of fewer than three runs on a side. */
  readonly interval: readonly [low: number, high: number] | null;
  /** Whether the runs show a difference: the interval leaves 0 out, and chance would rarely bring it about. */
  readonly shown: boolean;
  /**
   * Runs on each side that would settle whether the difference is one, if the next are like these; `null` when they
   * have settled it, when there is no difference to be settled, or when it would take more than {@link mostRuns}.
   */
  readonly runsToSettle: number | null;
}

/** No interval is claimed of fewer runs than this on a side. */
export const leastRuns = 3;
/** A difference that needs more runs than this is not worth their time. */
export const mostRuns = 200;

const confidence = 0.95;
const resamples = 4_000;
/** The same input gives the same interval. */
const seed = 20_260_401;

/**
 * Difference of two medians with a 95 % interval by the bootstrap: both sides are drawn again from themselves, with
 * replacement, and the interval is cut from the sorted differences. A few runs tell too little of how far others
 * would scatter, so the cuts are moved outwards as the t distribution asks.
 *
 * Source: T. Hesterberg, What Teachers Should Know About the Bootstrap, The American Statistician 69 (2015), section
 * 5.2.2 (expanded percentile interval).
 *
 * @throws RangeError when a side is empty.
 */
export function medianDifference(
  before: readonly number[],
  after: readonly number[],
): MedianDifference {
  if (before.length === 0 || after.length === 0) throw new RangeError('nothing to compare');
  const difference = middleOf(Float64Array.from(after)) - middleOf(Float64Array.from(before));
  const fewest = Math.min(before.length, after.length);
  if (fewest < leastRuns) return { difference, interval: null, shown: false, runsToSettle: null };
  const differences = resampled(before, after);
  const cut = expandedTail(fewest);
  const interval = [
    quantileSorted(differences, cut),
    quantileSorted(differences, 1 - cut),
  ] as const;
  const shown = canShow(before.length, after.length) && (interval[0] > 0 || interval[1] < 0);
  const runsToSettle = shown || difference === 0 ? null : runsFor(difference, differences, fewest);
  return { difference, interval, shown, runsToSettle };
}

/** The fewest runs of which all lie on one side of a limit by chance less often than once in twenty times. */
export const leastRunsOverLimit = 5;

/**
 * The interval of 95 % confidence of one median, by the same means; `null` of fewer runs than could show that they are
 * over a limit.
 */
export function medianInterval(
  values: readonly number[],
): readonly [low: number, high: number] | null {
  if (values.length < leastRunsOverLimit) return null;
  const medians = resampled([0], values);
  const cut = expandedTail(values.length);
  return [quantileSorted(medians, cut), quantileSorted(medians, 1 - cut)];
}

/** The sorted differences of medians of both sides drawn anew. */
function resampled(before: readonly number[], after: readonly number[]): number[] {
  const random = xoroshiro128plus(seed);
  const draw = (values: readonly number[], drawn: Float64Array) => {
    for (let index = 0; index < drawn.length; index++)
      drawn[index] = values[uniformInt(random, 0, values.length - 1)]!;
    return middleOf(drawn);
  };
  // Made once: thousands of small arrays, and their sorting by a callback, would take most of the time.
  const [drawnAfter, drawnBefore] = [Float64Array.from(after), Float64Array.from(before)];
  const differences = Float64Array.from(
    { length: resamples },
    () => draw(after, drawnAfter) - draw(before, drawnBefore),
  );
  return [...differences.sort()];
}

/** The share of resamples that is cut off at each end, for the smaller number of runs on a side. */
function expandedTail(runs: number): number {
  const t = jstat.studentt.inv(1 - (1 - confidence) / 2, runs - 1);
  return 1 - cumulativeStdNormalProbability(Math.sqrt(runs / (runs - 1)) * t);
}

/**
 * Whether a number of runs can show anything: with three and three, every tenth pair of equal pages has all
 * runs of one side below all of the other.
 */
function canShow(before: number, after: number): boolean {
  let orders = 1;
  for (let index = 1; index <= before; index++) orders *= (after + index) / index;
  return 2 / orders < 1 - confidence;
}

/** Runs with which an interval as wide as these resamples scatter, less by the root of their number, leaves 0 out. */
function runsFor(difference: number, differences: readonly number[], runs: number): number | null {
  const scatter = standardDeviation(differences);
  const width = jstat.normal.inv(1 - (1 - confidence) / 2, 0, 1) * scatter;
  const needed = Math.ceil(runs * (width / difference) ** 2);
  if (needed > mostRuns) return null;
  return Math.max(needed, runs + 1);
}

/** The median of values, which are left sorted. */
function middleOf(values: Float64Array): number {
  values.sort();
  const upper = values.length >> 1;
  return values.length % 2 === 1 ? values[upper]! : (values[upper - 1]! + values[upper]!) / 2;
}
