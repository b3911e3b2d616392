import { max, median, min } from 'simple-statistics';

/** The middle of several numbers and how far they lie apart, in their own unit. */
export interface Summary {
  readonly median: number;
  readonly min: number;
  readonly max: number;
  readonly count: number;
}

/** Median and range of the numbers present; `null` if there are none. */
export function summarise(values: readonly (number | null)[]): Summary | null {
  const known = values.filter((value) => value !== null);
  if (known.length === 0) return null;
  return { median: median(known), min: min(known), max: max(known), count: known.length };
}
