import type { MarkerName } from '../load/markers.js';

/** What the browsers of visitors measured on one day. */
export interface FieldMeasurement {
  /** ISO 8601: a day, or a time. */
  readonly date: string;
  /** Address of a page, or pattern of a page group; one of them. */
  readonly page: string | null;
  readonly group: string | null;
  readonly marker: MarkerName;
  /** The 75th percentile, in the unit of the marker. */
  readonly value: number;
  /** How many visits it is of. */
  readonly count: number;
}

/** A class of a histogram: values from `from` to before `to`. */
export interface HistogramBin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
}

/** The share of visits that are at most as slow as what is told of them. */
const percentile = 0.75;

/**
 * The 75th percentile of a histogram. Within its class, values are taken for evenly spread: the usual interpolation for
 * grouped data.
 *
 * @param bins ascending, at least one visit in all
 */
export function percentileOf(bins: readonly HistogramBin[]): number {
  const total = bins.reduce((sum, { count }) => sum + count, 0);
  let before = 0;
  for (const { from, to, count } of bins) {
    const due = percentile * total - before;
    if (count > 0 && due <= count) return from + ((to - from) * due) / count;
    before += count;
  }
  return bins.at(-1)?.to ?? 0;
}
