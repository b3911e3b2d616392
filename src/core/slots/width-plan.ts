import { groupBy } from '../base/group-by.js';

/** Pixels that a part of the audience needs of a picture. */
export interface Demand {
  /** Pixels across. */
  readonly width: number;
  /** Bytes that it costs, in an average visit, when it is sent a file of some width. */
  readonly bytesAt: (width: number) => number;
}

/** The widths that a picture should be offered in. */
export interface WidthPlan {
  /** Pixels across, in ascending order. */
  readonly widths: readonly number[];
  /** Bytes in an average visit when everybody gets the smallest width that is enough. */
  readonly bytes: number;
}

/** The most different widths considered: beyond it, neighbours are merged into the larger one. */
const maxWidths = 200;

/**
 * The at most `most` widths that cost the audience the fewest bytes, exactly: every demand is served by the smallest
 * width that is enough for it, so a best set is made of widths that are demanded, and the largest of them is in it.
 * Of the demands in ascending order, each file serves a run; `cost(i, j)` is that of the run from i to j served at
 * the width of j, and the best partition into runs is found by dynamic programming (Bellman 1957) in
 * O(n² · most).
 *
 * @param most at least 1
 * @param slack part of the bytes that may be given up to do with fewer files; 0 for none
 * @returns no widths for no demands
 */
export function planWidths(demands: readonly Demand[], most: number, slack = 0): WidthPlan {
  const steps = inSteps(demands);
  const count = steps.length;
  if (count === 0) return { widths: [], bytes: 0 };
  const cost = steps.map((last, j) => {
    // costs[i]: the demands from i to j, all served at the width of j.
    const costs: number[] = [];
    let sum = 0;
    for (let i = j; i >= 0; i--) {
      for (const { bytesAt } of steps[i]!.demands) sum += bytesAt(last.width);
      costs[i] = sum;
    }
    return costs;
  });
  /** For each number of files: the least bytes for the demands up to each, and where the run before ends. */
  const plans: { best: number[]; cut: number[] }[] = [
    { best: cost.map((costs) => costs[0]!), cut: steps.map(() => -1) },
  ];
  for (let files = 2; files <= Math.min(most, count); files++) {
    const { best: before } = plans.at(-1)!;
    const cut: number[] = [];
    const best = before.map((sum, j) => {
      let least = sum;
      cut[j] = -1;
      for (let i = 0; i < j; i++) {
        const split = before[i]! + cost[j]![i + 1]!;
        if (split < least - 1e-9) [least, cut[j]] = [split, i];
      }
      return least;
    });
    plans.push({ best, cut });
  }
  const last = count - 1;
  const goal = plans.at(-1)!.best[last]! * (1 + slack);
  const enough = plans.findIndex(({ best }) => best[last]! <= goal);
  return { widths: widthsOf(steps, plans.slice(0, enough + 1)), bytes: plans[enough]!.best[last]! };
}

/** The widths that the cuts of a plan leave, in ascending order. */
function widthsOf(
  steps: readonly Step[],
  plans: readonly { readonly cut: readonly number[] }[],
): number[] {
  let at = steps.length - 1;
  const widths = [steps[at]!.width];
  for (const { cut } of plans.toReversed()) {
    const before = cut[at]!;
    if (before < 0) continue;
    at = before;
    widths.unshift(steps[at]!.width);
  }
  return widths;
}

/** Part of the bytes that is not worth another file. */
export const usualSlack = 0.01;

/** Bytes in an average visit with given widths; who needs more than the largest gets the largest. */
export function bytesWith(demands: readonly Demand[], widths: readonly number[]): number {
  const ascending = widths.toSorted((a, b) => a - b);
  return demands.reduce((sum, { width, bytesAt }) => {
    const served = ascending.find((one) => one >= width) ?? ascending.at(-1) ?? width;
    return sum + bytesAt(served);
  }, 0);
}

interface Step {
  readonly width: number;
  readonly demands: Demand[];
}

/** Demands by width, ascending; if there are too many, the nearest widths are merged. */
function inSteps(demands: readonly Demand[]): Step[] {
  const byWidth = [...groupBy(demands, ({ width }) => width)].sort(([a], [b]) => b - a);
  const [[most] = [0]] = byWidth;
  const [least] = byWidth.at(-1) ?? [0];
  const grain = byWidth.length <= maxWidths ? 0 : (most - least) / maxWidths;
  const steps: Step[] = [];
  for (const [width, some] of byWidth) {
    const last = steps.at(-1);
    if (last && last.width - width <= grain) for (const demand of some) last.demands.push(demand);
    else steps.push({ width, demands: some });
  }
  return steps.reverse();
}
