import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { mean, median } from 'simple-statistics';

/** A step in a series of measurements. */
export interface ChangePoint {
  /** Place of the first measurement after it. */
  readonly at: number;
  /** Medians from the step before to it, and from it to the next. */
  readonly before: number;
  readonly after: number;
  /** How often chance alone makes a step as clear as this one, 0 to 1. */
  readonly probability: number;
}

/** No step is claimed of fewer measurements than this: chance sorts fewer too often. */
export const leastMeasurements = 8;
/** The fewest on each side of a step: one alone may be an outlier. */
const leastOnSide = 2;
/** A step is claimed if chance makes one as clear in fewer than so many series without a step. */
const significance = 0.03;
const permutations = 999;
/** A step of less than this part of the level is nobody's concern. */
const leastStep = 0.01;
/** The newest measurements that are looked at. */
const mostMeasurements = 400;
/** The same series gives the same steps. */
const seed = 20_260_901;

/**
 * The steps in a series, in order: where its level changed for good, and not by chance alone.
 *
 * A step is sought where the two means differ most for their scatter, the likelihood ratio for a shift in the mean (K. J.
 * Worsley, On the Likelihood Ratio Test for a Shift in Location of Normal Populations, JASA 74, 1979). Whether it is one is
 * decided by putting the same measurements into random orders (J. Antoch, M. Hušková, Permutation tests in change point
 * analysis, Statistics & Probability Letters 53, 2001), which asks nothing of their distribution. Both parts are then
 * searched in the same way (binary segmentation; L. Ju. Vostrikova, Detecting "disorder" in multidimensional random
 * processes, Soviet Mathematics Doklady 24, 1981).
 *
 * @param values in the order of time, in any unit
 */
export function changePoints(values: readonly number[]): ChangePoint[] {
  const first = Math.max(0, values.length - mostMeasurements);
  const random = xoroshiro128plus(seed);
  const found: { at: number; probability: number }[] = [];
  const search = (from: number, to: number) => {
    const part = Float64Array.from(values.slice(from, to));
    if (part.length < leastMeasurements) return;
    const { at, clarity } = clearestStep(part);
    const probability = probabilityOf(part, clarity, random);
    if (at < 0 || probability > significance) return;
    search(from, from + at);
    found.push({ at: from + at, probability });
    search(from + at, to);
  };
  search(first, values.length);
  return levelsOf(values, found, first);
}

/** The medians on both sides of each step; steps that hardly change the level are left out. */
function levelsOf(
  values: readonly number[],
  steps: readonly { readonly at: number; readonly probability: number }[],
  first: number,
): ChangePoint[] {
  return steps
    .map(({ at, probability }, index) => ({
      ...{ at, probability },
      before: median(values.slice(steps[index - 1]?.at ?? first, at)),
      after: median(values.slice(at, steps[index + 1]?.at ?? values.length)),
    }))
    .filter(({ before, after }) => {
      const level = Math.max(Math.abs(before), Math.abs(after));
      return Math.abs(after - before) >= level * leastStep && level > 0;
    });
}

/** Where a step is clearest, and how clear: the square of Student's t for the two parts. */
function clearestStep(values: Float64Array): { at: number; clarity: number } {
  const { length } = values;
  const middle = mean([...values]);
  let [sum, squares] = [0, 0];
  for (const value of values) squares += (value - middle) ** 2;
  // What is all the same has no step; and where both parts are, rounding must not decide how clear it is.
  if (squares <= (Math.abs(middle) * 1e-9) ** 2 * length) return { at: -1, clarity: 0 };
  const floor = squares * 1e-9;
  let best = { at: -1, clarity: 0 };
  for (let at = 1; at <= length - leastOnSide; at++) {
    sum += values[at - 1]! - middle;
    if (at < leastOnSide) continue;
    // Both means are measured from the whole one: they differ by this, weighed by their numbers.
    const between = sum ** 2 * (1 / at + 1 / (length - at));
    const within = Math.max(squares - between, floor);
    const clarity = (between / within) * (length - 2);
    if (clarity > best.clarity * (1 + 1e-9)) best = { at, clarity };
  }
  return best;
}

/** How often a random order of the same values has a step that is as clear. */
function probabilityOf(
  values: Float64Array,
  clarity: number,
  random: ReturnType<typeof xoroshiro128plus>,
): number {
  const shuffled = values.slice();
  let asClear = 1;
  for (let round = 0; round < permutations; round++) {
    // Fisher and Yates.
    for (let at = shuffled.length - 1; at > 0; at--) {
      const other = uniformInt(random, 0, at);
      [shuffled[at], shuffled[other]] = [shuffled[other]!, shuffled[at]!];
    }
    if (clearestStep(shuffled).clarity >= clarity * (1 - 1e-9)) asClear++;
  }
  return asClear / (permutations + 1);
}
