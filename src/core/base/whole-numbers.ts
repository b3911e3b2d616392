/**
 * Whole numbers in place of fractions, of which each is less than one from what it was, and which add up to the rounded
 * sum: what one loses by rounding the next one gets.
 *
 * @param total what they add up to, where that is known from elsewhere
 */
export function wholeNumbers(values: readonly number[], total?: number): number[] {
  const round = carriedRounding();
  const whole = values.map(round);
  const given = whole.reduce((sum, value) => sum + value, 0);
  // Sums of the same fractions in another order may be rounded the other way.
  const last = whole.findLastIndex((value) => value !== 0);
  if (total !== undefined && last >= 0) whole[last]! += total - given;
  return whole;
}

/** Rounds numbers one after the other: what one loses the next one gets. */
export function carriedRounding(): (value: number) => number {
  let sum = 0;
  let given = 0;
  return (value) => {
    sum += value;
    const rounded = Math.round(sum) - given;
    given += rounded;
    return rounded;
  };
}
